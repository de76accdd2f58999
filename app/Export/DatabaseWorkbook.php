<?php

declare(strict_types=1);

namespace App\Export;

use App\Figures\KpiStore;
use App\Figures\Organisation;
use App\Models\Unit;
use App\Support\PeriodDate;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\KpiUnitEntry;
use Kybernet\Core\Workbook\NoteEntry;
use Kybernet\Core\Workbook\PersonEntry;
use Kybernet\Core\Workbook\UnitEntry;
use Kybernet\Core\Workbook\Workbook;
use stdClass;

/**
 * The whole database as a workbook: everything that is defined and every figure. Passwords, versions and times stay.
 */
final readonly class DatabaseWorkbook
{
    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private KpiStore $kpis,
        private PeriodDate $dates,
        private FinancialYear $year,
    ) {}

    public function read(): Workbook
    {
        return new Workbook(
            $this->year,
            $this->people(),
            array_values(array_map($this->unit(...), $this->organisation->units())),
            $this->database->table('objectives')->orderBy('position')->orderBy('id')->pluck('name', 'code')->all(),
            array_values($this->database->table('themes')->orderBy('position')->orderBy('name')->pluck('name')->all()),
            $this->kpis(),
        );
    }

    /** @return list<PersonEntry> */
    private function people(): array
    {
        return array_values($this->database->table('users')->leftJoin('units', 'units.id', '=', 'users.unit_id')->orderBy('users.id')
            ->get(['users.email', 'users.name', 'users.role', 'users.locale', 'units.code as unit'])
            ->map(fn (stdClass $user): PersonEntry => new PersonEntry($user->email, $user->name, $user->role, $user->unit, $user->locale))->all());
    }

    private function unit(Unit $unit): UnitEntry
    {
        return new UnitEntry(
            $unit->code,
            $unit->name,
            $unit->kind,
            $unit->parent_id === null ? null : $this->organisation->unit($unit->parent_id)->code,
            BigDecimal::of($unit->weight)->stripTrailingZeros(),
            Organisation::method($unit),
        );
    }

    /** @return list<KpiEntry> */
    private function kpis(): array
    {
        $drivers = [];
        foreach ($this->database->table('kpi_drivers')->join('kpis', 'kpis.id', '=', 'kpi_drivers.driver_id')
            ->orderBy('kpi_drivers.position')->get(['kpi_drivers.kpi_id', 'kpis.code']) as $driver) {
            $drivers[$driver->kpi_id][] = $driver->code;
        }
        $places = $this->places();

        return array_values($this->database->table('kpis')
            ->leftJoin('units', 'units.id', '=', 'kpis.department_id')
            ->leftJoin('themes', 'themes.id', '=', 'kpis.theme_id')
            ->leftJoin('objectives', 'objectives.id', '=', 'kpis.objective_id')
            ->orderBy('kpis.id')
            ->get(['kpis.*', 'units.code as department', 'themes.name as theme', 'objectives.code as objective'])
            ->map(fn (stdClass $kpi): KpiEntry => new KpiEntry(
                $kpi->code,
                $kpi->name,
                $kpi->purpose === '' ? null : $kpi->purpose,
                $kpi->level,
                $kpi->scaled,
                $kpi->department,
                $kpi->theme,
                $kpi->objective,
                $drivers[$kpi->id] ?? [],
                array_filter(['green' => $kpi->text_green, 'amber' => $kpi->text_amber, 'red' => $kpi->text_red], is_string(...)),
                $places[$kpi->id]['definition'] ?? $this->kpis->definitionOf($kpi->id),
                $places[$kpi->id]['units'] ?? [],
            ))->all());
    }

    /** @return array<int, array{definition: Definition, units: list<KpiUnitEntry>}> by KPI */
    private function places(): array
    {
        $notes = [];
        foreach ($this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->get(['kpi_unit_id', 'period', 'text', 'users.email as by']) as $note) {
            $notes[$note->kpi_unit_id][] = $note;
        }
        $places = [];
        foreach ($this->kpis->placed() as [$row, $placed]) {
            $written = [];
            foreach ($notes[$row->id] ?? [] as $note) {
                $written[$this->dates->period($note->period, $placed->definition->frequency)->key()] = new NoteEntry($note->text, $note->by);
            }
            $places[$row->kpi_id]['definition'] = $placed->definition;
            $places[$row->kpi_id]['units'][] = new KpiUnitEntry(
                $placed,
                BigDecimal::of($row->weight)->stripTrailingZeros(),
                $row->position,
                $row->owner_email,
                $written,
            );
        }

        return $places;
    }
}
