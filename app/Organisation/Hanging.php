<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Illuminate\Database\Connection;

/**
 * What hangs on units: they are taken away only while nothing does.
 */
final readonly class Hanging
{
    /** By table: the column that names the unit, and what it is in a sentence. */
    private const THINGS = ['kpi_unit' => ['unit_id', 'KPIs'], 'kpis' => ['department_id', 'KPIs that it answers for'], 'users' => ['unit_id', 'people'], 'period_states' => ['unit_id', 'closed months']];

    public function __construct(private Connection $database) {}

    /**
     * @param  array<int, string>  $units  names by identity
     * @return string why not all of them can go, as the beginning of a sentence; '' where they can
     */
    public function on(array $units): string
    {
        foreach (self::THINGS as $table => [$column, $words]) {
            $unit = $this->database->table($table)->whereIn($column, array_keys($units))->value($column);
            if (is_int($unit)) {
                return "{$units[$unit]} has {$words}";
            }
        }
        $inside = Unit::query()->whereIn('parent_id', array_keys($units))->whereKeyNot(array_keys($units))->value('name');

        return is_string($inside) ? "{$inside} stands below" : '';
    }
}
