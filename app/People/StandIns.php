<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\StandInView;
use App\Support\Installation;
use App\Support\Trail;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Who answers for whom, from one day to another, by the organisation's clock.
 */
final readonly class StandIns
{
    public function __construct(private Connection $database, private Installation $installation, private Trail $trail) {}

    /** @return list<StandInView> those of the person, and those in which they answer, that are not over */
    public function of(User $user): array
    {
        return $this->read('(away.id = ? OR other.id = ?) AND', [$user->id, $user->id]);
    }

    /** @return list<StandInView> everybody's that are not over */
    public function all(): array
    {
        return $this->read('', []);
    }

    /** @throws ValidationException where it cannot be */
    public function arrange(User $away, int $substitute, string $first, string $last): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($away, $substitute, $first, $last): void {
            $other = User::query()->whereNull('blocked_at')->where('is_program', false)->lockForUpdate()->find($substitute);
            $problem = match (true) {
                $other === null => ['substitute' => 'Choose who answers meanwhile.'],
                $other->id === $away->id => ['substitute' => 'Somebody else has to answer.'],
                $last < $first => ['last' => 'The last day is before the first.'],
                $last < $this->today() => ['last' => 'These days are over.'],
                default => [],
            };
            if ($problem !== []) {
                throw ValidationException::withMessages($problem);
            }
            $row = ['user_id' => $away->id, 'substitute_id' => $substitute, 'first_day' => $first, 'last_day' => $last];
            // The same once more comes from an answer that was lost.
            if ($this->database->table('stand_ins')->where($row)->doesntExist()) {
                $this->database->table('stand_ins')->insert($row);
            }
        });
    }

    public function takeBack(User $away, int $id): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('stand_ins')->where('id', $id)->where('user_id', $away->id)->delete());
    }

    /**
     * @param  string  $condition  ends in AND
     * @param  list<int>  $values
     * @return list<StandInView> the next first
     */
    private function read(string $condition, array $values): array
    {
        /** @var list<object{id: int, person: int, away: string, substitute: int, answers: string, first_day: string, last_day: string}> $rows */
        $rows = $this->database->select(
            "SELECT stand_ins.id, away.id AS person, away.name AS away, other.id AS substitute, other.name AS answers, first_day, last_day
             FROM stand_ins JOIN users away ON away.id = user_id JOIN users other ON other.id = substitute_id WHERE {$condition} last_day >= ? ORDER BY first_day, stand_ins.id",
            [...$values, $this->today()],
        );

        return array_map(fn (object $row): StandInView => new StandInView($row->id, $row->person, $row->away, $row->substitute, $row->answers, $row->first_day, $row->last_day), $rows);
    }

    private function today(): string
    {
        return CarbonImmutable::now($this->installation->timeZone())->toDateString();
    }
}
