<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * The figures of a KPI moved on by a year: those of a period are last year's, where a target is made of them. A week 53
 * has none.
 */
final readonly class YearEarlierFigures implements Figures
{
    public function __construct(private Figures $figures) {}

    public function has(Period $period): bool
    {
        $earlier = $period->yearEarlier();

        return $earlier !== null && $this->figures->has($earlier);
    }

    public function absence(Period $period): Absence
    {
        $earlier = $period->yearEarlier();

        return $earlier === null ? Absence::Missing : $this->figures->absence($earlier);
    }

    public function figure(Period $period): ?Exact
    {
        $earlier = $period->yearEarlier();

        return $earlier === null ? null : $this->figures->figure($earlier);
    }

    public function float(Period $period): ?float
    {
        return $this->figure($period)?->toFloat();
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        return $this->figures->gather(self::earlier($periods), $rule);
    }

    public function whyNone(array $periods): ?string
    {
        return $this->figures->whyNone(self::earlier($periods));
    }

    public function earliest(): ?string
    {
        return $this->figures->earliest();
    }

    /**
     * @param  list<Period>  $periods
     * @return list<Period>
     */
    private static function earlier(array $periods): array
    {
        return array_values(array_filter(array_map(fn (Period $period): ?Period => $period->yearEarlier(), $periods)));
    }
}
