<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\PersonLine;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;

/**
 * Everybody who may come in, or may not any longer, with what is theirs to do.
 */
final readonly class PeopleReader
{
    public function __construct(private Connection $database) {}

    /** @return list<PersonLine> by name */
    public function read(): array
    {
        return $this->lines(User::query()->where('is_program', false));
    }

    public function one(User $person): PersonLine
    {
        return $this->lines(User::query()->whereKey($person->id))[0] ?? throw new \LogicException('A person that was found is there.');
    }

    /**
     * @param  Builder<User>  $people
     * @return list<PersonLine>
     */
    private function lines(Builder $people): array
    {
        $owned = $this->database->table('kpi_unit')->whereNotNull('owner_id')->groupBy('owner_id')->selectRaw('owner_id, count(*) AS kpis')->pluck('kpis', 'owner_id')->all();

        return array_values($people->with('grants.unit')->orderByRaw('blocked_at IS NOT NULL, name')->get()
            ->map(fn (User $person): PersonLine => PersonLine::of($person, is_int($owned[$person->id] ?? null) ? $owned[$person->id] : 0))->all());
    }
}
