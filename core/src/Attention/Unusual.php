<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\InWords;
use Kybernet\Core\Trend\ControlChart;

/**
 * A figure that may be a slip of the hand: outside the limits between which the KPI moves by chance, or ten times that
 * of the period before. It asks "is that right?" and never blocks.
 *
 * Source: the limits are those of the individuals chart; the factor of ten is common practice (a shifted point).
 */
final readonly class Unusual
{
    private const TIMES = 10;

    private function __construct(private ?ControlChart $beyond) {}

    /**
     * Null where nothing about the figure is unusual, or too little is known to say so.
     *
     * @param  Exact|null  $previous  the figure of the period before
     * @param  ControlChart|null  $chart  with limits from the periods before the figure's own
     */
    public static function of(Exact $figure, ?Exact $previous, ?ControlChart $chart): ?self
    {
        if ($previous !== null && ! $previous->isZero() && $figure->abs()->compareTo($previous->abs()->times(self::TIMES)) >= 0) {
            return new self(null);
        }

        return $chart !== null && $chart->isOutside($figure->toFloat()) ? new self($chart) : null;
    }

    /**
     * The question to the person who enters it.
     *
     * @param  int<0, max>  $decimals  that the KPI shows
     */
    public function question(int $decimals): string
    {
        if ($this->beyond === null) {
            return 'Ten times the figure before, or more. Is that right?';
        }
        $shown = fn (float $limit): string => InWords::grouped(number_format($limit, $decimals, '.', ''));

        return "It usually lies between {$shown($this->beyond->lower)} and {$shown($this->beyond->upper)}. Is that right?";
    }
}
