<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Measure\Accumulation;

/**
 * What a rule set compares the actual with.
 */
enum Reference: string
{
    /** The target, or the band, of the span. */
    case Target = 'target';
    /** The same span a year earlier. */
    case PriorYear = 'prior-year';
    /** The mean of the KPI's previous periods, all of them with a reading. */
    case Recent = 'recent';
    /** The year target; the status is always that of the year to date. */
    case YearTarget = 'year-target';
    /** Nothing: fixed levels. */
    case None = 'none';

    /**
     * All ways in which a KPI can be judged: what it is compared with, and how the difference is measured.
     *
     * @return list<array{Polarity, Accumulation, self, list<Deviation>}>
     */
    public static function pairings(): array
    {
        $pairings = [];
        foreach (Polarity::cases() as $polarity) {
            foreach ($polarity === Polarity::None ? [] : Accumulation::cases() as $accumulation) {
                foreach (self::cases() as $reference) {
                    $measures = array_values(array_filter(Deviation::cases(), fn (Deviation $measure): bool => $reference->goesWith($measure, $polarity, $accumulation)));
                    if ($measures !== []) {
                        $pairings[] = [$polarity, $accumulation, $reference, $measures];
                    }
                }
            }
        }

        return $pairings;
    }

    /** Whether the reference can be measured in that way, for a KPI of that polarity and accumulation. */
    public function goesWith(Deviation $measure, Polarity $polarity, Accumulation $accumulation): bool
    {
        $deviates = $measure !== Deviation::Level;

        return match ($this) {
            self::Target => $deviates && ($polarity !== Polarity::Band || $measure !== Deviation::Reached),
            self::PriorYear, self::Recent => $deviates && $polarity !== Polarity::Band,
            self::YearTarget => $measure === Deviation::Reached && $polarity === Polarity::Higher && $accumulation === Accumulation::Sum,
            self::None => ! $deviates,
        };
    }
}
