<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\Month;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;

/**
 * Which months are closed, unit by unit. A period of any frequency is closed with the month in which it ends.
 */
final class Closures
{
    /** @var array<int, array<string, true>>|null months by unit */
    private ?array $closed = null;

    /** @var array<int, string> when a month of it was closed last, by unit */
    private array $last = [];

    public function __construct(private readonly Connection $database, private readonly FinancialYear $year) {}

    public function holds(int $unit, Period $period): bool
    {
        return isset($this->all()[$unit][$this->year->endMonth($period)->key()]);
    }

    /**
     * Whether a period of a KPI can change no more. The history of one that has begun to be measured in the unit since
     * the last closing there is open until the next: nothing of it was closed.
     */
    public function locks(MeasurementFacts $kpi, Period $period): bool
    {
        return $this->locksPlace($kpi->unitId, $kpi->since, $period);
    }

    /** @param  string|null  $since  when the KPI began to be measured in the unit */
    public function locksPlace(int $unit, ?string $since, Period $period): bool
    {
        return $this->holds($unit, $period) && ($since === null || $since <= ($this->last[$unit] ?? ''));
    }

    /**
     * @param  list<int>  $units
     * @return list<Period> months that are closed in any of the units, earliest first
     */
    public function months(array $units): array
    {
        $months = [];
        foreach ($units as $unit) {
            $months += $this->all()[$unit] ?? [];
        }
        ksort($months);

        return array_map(fn (string $month): Period => Period::parse($month), array_keys($months));
    }

    public function forget(): void
    {
        $this->closed = null;
    }

    /** @return array<int, array<string, true>> */
    private function all(): array
    {
        if ($this->closed === null) {
            $this->closed = [];
            foreach ($this->database->table('period_states')->get(['unit_id', 'period', 'closed_at']) as $state) {
                $this->last[$state->unit_id] = max($this->last[$state->unit_id] ?? '', $state->closed_at);
                $this->closed[$state->unit_id][Month::ofDate($state->period)->key()] = true;
            }
        }

        return $this->closed;
    }
}
