<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Makes units of a list, all of them or none, and takes back those of one list as long as nothing hangs on them.
 */
final readonly class MakeUnits
{
    public function __construct(private Connection $database, private Trail $trail, private TakeUnitsAway $takeAway) {}

    /** @return string the batch by which they can be taken back */
    public function __invoke(string $text, string $below): string
    {
        $batch = (string) Str::uuid();
        $this->trail->within($batch, '', function () use ($text, $below): void {
            // Two lists at once are made one after the other, and the second is read with the units of the first.
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $planned = (new UnitList(new Organisation))->read($text, $below);
            $this->refuse($planned);
            $ids = $this->database->table('units')->pluck('id', 'code')->all();
            $last = $this->database->table('units')->max('position');
            $position = is_numeric($last) ? (int) $last : 0;
            foreach ($planned as $unit) {
                if ($unit->isNew()) {
                    $ids[$unit->code] = $this->database->table('units')->insertGetId([
                        'code' => $unit->code, 'name' => $unit->name, 'kind' => $unit->kind, 'parent_id' => $ids[$unit->parent], 'position' => ++$position,
                    ]);
                }
            }
        });

        return $batch;
    }

    /** @throws ValidationException with what hangs on one of them */
    public function takeBack(string $batch): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($batch): void {
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $made = $this->database->table('audit_entries')->where(['batch' => $batch, 'subject' => 'units'])->whereNull('before')->pluck('unit_id')->all();
            /** @var array<int, string> $units */
            $units = Unit::query()->whereKey($made)->pluck('name', 'id')->all();
            ($this->takeAway)($units, 'batch', ' by now, so these units stay.');
        });
    }

    /**
     * @param  list<PlannedUnit>  $planned
     *
     * @throws ValidationException
     */
    private function refuse(array $planned): void
    {
        $new = array_filter($planned, fn (PlannedUnit $unit): bool => $unit->isNew());
        foreach ($planned as $unit) {
            if ($unit->problem !== '') {
                throw ValidationException::withMessages(['list' => "Line {$unit->line}: {$unit->problem}"]);
            }
        }
        if ($new === [] || count($new) > UnitList::MOST_UNITS) {
            throw ValidationException::withMessages(['list' => $new === [] ? 'There is no new unit in the list.' : 'Up to '.number_format(UnitList::MOST_UNITS).' units are made at once.']);
        }
    }
}
