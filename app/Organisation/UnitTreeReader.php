<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Organisation\Views\UnitTreeLine;
use App\Support\Month;
use Illuminate\Database\Connection;

/**
 * The whole tree, top down, with what hangs on each unit.
 */
final readonly class UnitTreeReader
{
    public function __construct(private Connection $database, private Organisation $organisation) {}

    /** @return list<UnitTreeLine> */
    public function read(): array
    {
        [$kpis, $people] = [$this->counts('kpi_unit'), $this->counts('grants')];
        $below = array_count_values(array_map(fn (Unit $unit): int => $unit->parent_id ?? 0, $this->organisation->units()));
        $depths = [];
        $lines = [];
        foreach ($this->organisation->below(array_key_first($this->organisation->units()) ?? 0) as $id) {
            $unit = $this->organisation->unit($id);
            $parent = $unit->parent_id === null ? null : $this->organisation->unit($unit->parent_id);
            $depths[$unit->id] = $parent === null ? 0 : $depths[$parent->id] + 1;
            $lines[] = new UnitTreeLine($unit->code, $unit->name, $unit->kind, $parent?->code, WantedUnit::plain($unit->weight), $unit->roll_up, WantedUnit::plain($unit->roll_up_green), WantedUnit::plain($unit->roll_up_other), $unit->retired_from === null ? null : Month::ofDate($unit->retired_from)->key(), $depths[$unit->id], $kpis[$unit->id] ?? 0, $people[$unit->id] ?? 0, $below[$unit->id] ?? 0);
        }

        return $lines;
    }

    /** @return array<int, int> rows of a table by unit */
    private function counts(string $table): array
    {
        /** @var array<int, int> */
        return $this->database->table($table)->whereNotNull('unit_id')->groupBy('unit_id')->selectRaw('unit_id, count(DISTINCT '.($table === 'grants' ? 'user_id' : 'id').') AS rows')->pluck('rows', 'unit_id')->all();
    }
}
