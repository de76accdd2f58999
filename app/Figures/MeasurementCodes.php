<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * Finds measurements by the codes of their KPI and their unit, as files and programs name them.
 */
final readonly class MeasurementCodes
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<array{string, string}>  $pairs  of codes
     * @return array<string, object{id: int, unit_id: int, owner_id: int|null}> by both codes, with a blank between them
     */
    public function find(array $pairs): array
    {
        /** @var list<object{id: int, unit_id: int, owner_id: int|null, kpi: string, unit: string}> $rows */
        $rows = $pairs === [] ? [] : $this->database->select(
            'SELECT kpi_unit.id, kpi_unit.unit_id, owner_id, asked.kpi, asked.unit
             FROM (SELECT DISTINCT kpi, unit FROM unnest(?::text[], ?::text[]) AS pairs (kpi, unit)) asked
             JOIN kpis ON kpis.code = asked.kpi JOIN units ON units.code = asked.unit OR units.id = (SELECT unit_id FROM unit_codes WHERE unit_codes.code = asked.unit)
             JOIN kpi_unit ON kpi_unit.kpi_id = kpis.id AND kpi_unit.unit_id = units.id',
            [PgArray::of(array_column($pairs, 0)), PgArray::of(array_column($pairs, 1))],
        );
        $found = [];
        foreach ($rows as $row) {
            $found["{$row->kpi} {$row->unit}"] = $row;
        }

        return $found;
    }
}
