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
 * Targets that are set, a line each.
 */
final readonly class TargetSheet implements BookSheet
{
    public function __construct(private Connection $database, private PeriodDate $dates, private CellSheet $cells) {}

    public function name(): string
    {
        return 'Targets';
    }

    public function explanation(): string
    {
        return 'A line for each target: codes of the KPI and the unit, the period, the target. A period such as FY2026 is the target of a whole year. A band has its lower end under Target and its upper end beside it.';
    }

    public function head(): array
    {
        return ['KPI', 'Unit', 'Period', 'Target', 'Upper end'];
    }

    public function figures(): array
    {
        return [3, 4];
    }

    public function rows(User $user): iterable
    {
        /** @var \stdClass&object{kpi: string, unit: string, period: string|null, year: int|null, frequency: string, figure: string, upper: string} $row */
        foreach ($this->database->cursor(
            "SELECT kpis.code AS kpi, units.code AS unit, set.period, set.year, kpis.frequency, trim_scale(coalesce(target, low))::text AS figure, coalesce(trim_scale(high)::text, '') AS upper
             FROM (SELECT kpi_unit_id, period, NULL::int AS year, target, low, high FROM targets UNION ALL SELECT kpi_unit_id, NULL, year, target, low, high FROM year_targets) AS set
             JOIN kpi_unit ON kpi_unit.id = set.kpi_unit_id JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
             ORDER BY kpi_unit.position, kpis.code, units.position, units.id, set.period, set.year"
        ) as $row) {
            yield [$row->kpi, $row->unit, $row->period === null ? "FY{$row->year}" : $this->dates->period($row->period, Frequency::from($row->frequency))->key(), $row->figure, $row->upper];
        }
    }

    public function take(array $rows, User $user): SheetOutcome
    {
        return $this->cells->take($rows, Layer::Target, ['Target', 'Upper end'], '', $user);
    }
}
