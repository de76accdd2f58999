<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Status\Polarity;

/**
 * Where a KPI is heading over its last 12 periods.
 */
final readonly class Trend
{
    public const PERIODS = 12;

    private const LEAST_READINGS = 6;

    /** A slope that chance gives more often than this is no direction. */
    private const SIGNIFICANCE = 0.05;

    private function __construct(
        public Regression $line,
        public Direction $direction,
        /** null where a direction is neither good nor bad */
        public ?Meaning $meaning,
    ) {}

    /**
     * Null with fewer than 6 readings.
     *
     * @param  list<float|null>  $figures  of the last periods, earliest first; gaps keep their place
     */
    public static function over(array $figures, Polarity $polarity): ?self
    {
        $x = [];
        $y = [];
        foreach ($figures as $index => $figure) {
            if ($figure !== null) {
                $x[] = (float) ($index + 1);
                $y[] = $figure;
            }
        }
        if (count($x) < self::LEAST_READINGS) {
            return null;
        }
        $line = Regression::fit($x, $y);
        $direction = match (true) {
            $line->p >= self::SIGNIFICANCE => Direction::Steady,
            $line->slope > 0 => Direction::Rising,
            default => Direction::Falling,
        };

        return new self($line, $direction, match (true) {
            $polarity === Polarity::None => null,
            $direction === Direction::Steady => Meaning::Steady,
            $polarity === Polarity::Band => null,
            default => ($direction === Direction::Rising) === ($polarity === Polarity::Higher) ? Meaning::Improving : Meaning::Worsening,
        });
    }
}
