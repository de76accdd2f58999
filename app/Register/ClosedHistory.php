<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\Closures;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Organisation\Organisation;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Holds a change against the months that are closed: whatever it was, it may not give one of them another colour.
 */
final readonly class ClosedHistory
{
    public function __construct(
        private MeasurementStore $kpis,
        private Closures $closures,
        private Organisation $organisation,
        private Scorecard $scorecard,
    ) {}

    /**
     * Runs the work, and undoes it where it recolours what is closed. To be called inside a transaction.
     *
     * @template Result
     *
     * @param  list<int>  $kpis  that are changed
     * @param  string  $field  where the message belongs
     * @param  \Closure(): Result  $work
     * @return Result
     *
     * @throws ValidationException with the first months that would change
     */
    public function keep(array $kpis, string $field, \Closure $work): mixed
    {
        $before = $this->colours($kpis);
        $result = $work();
        if ($before !== []) {
            $after = $this->colours($kpis);
            $changed = array_keys(array_filter($before, fn (Status $status, string $cell): bool => isset($after[$cell]) && $after[$cell] !== $status, ARRAY_FILTER_USE_BOTH));
            if ($changed !== []) {
                $named = array_map(fn (string $cell): string => "{$cell} ({$before[$cell]->inPassing()} would be {$after[$cell]->inPassing()})", array_slice($changed, 0, 3));
                throw ValidationException::withMessages([$field => 'Closed months keep their colours. This would change '.implode(', ', $named)
                    .(count($changed) > 3 ? ' and '.(count($changed) - 3).' more' : '').'. Let it hold from a later month, or reopen them.']);
            }
        }

        return $result;
    }

    /**
     * @param  list<int>  $kpis
     * @return array<string, Status> by KPI, unit and period in words
     */
    private function colours(array $kpis): array
    {
        $units = [];
        foreach (Measurement::query()->whereIn('kpi_id', $kpis)->distinct()->pluck('unit_id') as $unit) {
            $units[] = $unit;
            // A figure gathered or worked out above may change with it.
            for ($above = $this->organisation->unit($unit)->parent_id; $above !== null; $above = $this->organisation->unit($above)->parent_id) {
                $units[] = $above;
            }
        }
        $units = array_values(array_unique($units));
        $months = $this->closures->months($units);
        if ($months === []) {
            return [];
        }
        $below = array_values(array_unique(array_merge(...array_map(fn (int $unit): array => $this->organisation->below($unit), $units))));
        $colours = [];
        foreach ($this->kpis->inUnits($below, $months[0], $months[count($months) - 1]) as $kpi) {
            foreach ($months as $month) {
                foreach ($this->closures->locks($kpi, $month) ? $this->scorecard->ending($kpi->measurement, $month) : [] as $period) {
                    $colours[$this->words($kpi, $period)] = $this->scorecard->periodStatus($kpi->measurement, $period);
                }
            }
        }

        return $colours;
    }

    private function words(MeasurementFacts $kpi, Period $period): string
    {
        return "{$kpi->name} in {$this->organisation->unit($kpi->unitId)->name}, {$period->words()}";
    }
}
