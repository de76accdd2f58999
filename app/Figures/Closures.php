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

    public function __construct(private readonly Connection $database, private readonly FinancialYear $year) {}

    public function holds(int $unit, Period $period): bool
    {
        return isset($this->all()[$unit][$this->year->endMonth($period)->key()]);
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
            foreach ($this->database->table('period_states')->get(['unit_id', 'period']) as $state) {
                $this->closed[$state->unit_id][Month::ofDate($state->period)->key()] = true;
            }
        }

        return $this->closed;
    }
}
