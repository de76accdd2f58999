<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

/**
 * Whether it is the same unit that stands out at the worse end again and again.
 */
final readonly class Recurring
{
    /** Once is no pattern. */
    private const LEAST = 2;

    private function __construct(
        public int|string $unit,
        /** of how many KPIs it is the last */
        public int $last,
        /** of how many KPIs it is in the worst tenth */
        public int $worst,
        /** in how many KPIs it is ranked */
        public int $of,
    ) {}

    /**
     * The unit that is in the worst tenth of the most KPIs, at least two; of several the one that is last more often, and
     * then the first in the register.
     *
     * @param  list<Comparison>  $comparisons  of the same units
     */
    public static function among(array $comparisons): ?self
    {
        $worst = $last = $of = $units = [];
        foreach ($comparisons as $comparison) {
            // Not every KPI is measured in every unit.
            $units += $comparison->units;
            foreach ($comparison->worstTenth as $unit) {
                $worst[$unit] = ($worst[$unit] ?? 0) + 1;
                $last[$unit] = ($last[$unit] ?? 0) + (int) $comparison->isLast($unit);
            }
            foreach (array_filter($comparison->ranks, is_int(...)) as $unit => $_) {
                $of[$unit] = ($of[$unit] ?? 0) + 1;
            }
        }
        $most = null;
        foreach (array_keys($units) as $unit) {
            if (($worst[$unit] ?? 0) >= self::LEAST && ($most === null || [$worst[$unit], $last[$unit]] > [$most->worst, $most->last])) {
                $most = new self($unit, $last[$unit], $worst[$unit], $of[$unit]);
            }
        }

        return $most;
    }
}
