<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\Layer;
use App\Models\User;
use App\Support\PeriodDate;
use App\Tables\BookSheet;
use App\Tables\SheetOutcome;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Frequency;

/**
 * Readings with their reasons, a line each.
 */
final readonly class FigureSheet implements BookSheet
{
    public function __construct(private Connection $database, private PeriodDate $dates, private CellSheet $cells) {}

    public function name(): string
    {
        return 'Figures';
    }

    public function explanation(): string
    {
        return 'A line for each figure: codes of the KPI and the unit, the period (2026-08, 2026-W34, FY2026-Q2, FY2026), the figure, and its reason where there is one. A judged KPI has green, amber or red. What is formulas’ or gathered is worked out and has no line.';
    }

    public function head(): array
    {
        return ['KPI', 'Unit', 'Period', 'Actual', 'Reason'];
    }

    public function figures(): array
    {
        return [3];
    }

    public function rows(User $user): iterable
    {
        /** @var \stdClass&object{kpi: string, unit: string, period: string, frequency: string, figure: string, note: string} $row */
        foreach ($this->database->cursor(
            "SELECT kpis.code AS kpi, units.code AS unit, readings.period, kpis.frequency, coalesce(trim_scale(actual)::text, colour) AS figure, coalesce(notes.text, '') AS note
             FROM readings JOIN kpi_unit ON kpi_unit.id = readings.kpi_unit_id JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
             LEFT JOIN notes ON notes.kpi_unit_id = readings.kpi_unit_id AND notes.period = readings.period
             WHERE actual IS NOT NULL OR colour IS NOT NULL ORDER BY kpi_unit.position, kpis.code, units.position, units.id, readings.period"
        ) as $row) {
            yield [$row->kpi, $row->unit, $this->dates->period($row->period, Frequency::from($row->frequency))->key(), $row->figure, $row->note];
        }
    }

    public function take(array $rows, User $user): SheetOutcome
    {
        return $this->cells->take($rows, Layer::Reading, ['Actual'], 'Reason', $user);
    }
}
