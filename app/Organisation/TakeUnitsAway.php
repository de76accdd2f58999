<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;
use Illuminate\Validation\ValidationException;

/**
 * Takes units away, all of them or none, and only while nothing hangs on them.
 */
final readonly class TakeUnitsAway
{
    /** By table: the column that names the unit, and what it is in a sentence. */
    private const THINGS = ['kpi_unit' => ['unit_id', 'KPIs'], 'kpis' => ['department_id', 'KPIs that it answers for'], 'grants' => ['unit_id', 'people'], 'period_states' => ['unit_id', 'closed months'], 'record_sets' => ['unit_id', 'record sets']];

    /** The database's word for a row that others refer to. */
    private const REFERRED_TO = '23503';

    public function __construct(private Connection $database) {}

    /**
     * @param  array<int, string>  $units  names by identity
     * @param  string  $field  what the refusal is said of
     * @param  string  $so  the end of its sentence
     *
     * @throws ValidationException with what hangs on one of them
     */
    public function __invoke(array $units, string $field, string $so): void
    {
        $hanging = $this->hanging($units);
        try {
            if ($hanging === '') {
                // Those below go with those above: the database looks when the statement is done.
                Unit::query()->whereKey(array_keys($units))->delete();
            }
        } catch (QueryException $failure) {
            if ($failure->getCode() !== self::REFERRED_TO) {
                throw $failure;
            }
            // Whoever put it there was faster than the look.
            $hanging = 'Something was put there just now';
        }
        if ($hanging !== '') {
            throw ValidationException::withMessages([$field => "{$hanging}{$so}"]);
        }
    }

    /**
     * @param  array<int, string>  $units  names by identity
     * @return string why not all of them can go, as the beginning of a sentence; '' where they can
     */
    private function hanging(array $units): string
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
