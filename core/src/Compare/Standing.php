<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Status\Polarity;

/**
 * Where one unit lies among its peers: what they all reported of one KPI on one span. Inside or outside of a band, the
 * one that is the nearest to it is the best.
 */
final readonly class Standing
{
    /** Of two, one is always the worse; that says nothing. */
    private const LEAST = 3;

    /**
     * @param  array<int|string, int>  $ranks  by unit, 1 for the best; ties share the better rank
     * @param  array{float, float, float}|null  $quartiles  lower quartile, median and upper quartile of the figures; null for a band
     */
    private function __construct(
        public int $rank,
        public array $ranks,
        public bool $inBestTenth,
        public bool $inWorstTenth,
        public ?array $quartiles,
        /** how many units have a target (or a band) to meet */
        public int $aiming,
        /** how many of those meet it */
        public int $meeting,
    ) {}

    /**
     * @param  array<string, LikeForLike>  $spans  by unit; those without a figure are left out
     * @return self|null null when the unit has no figure, with fewer than three that have one, and for what is only tracked
     */
    public static function of(string $unit, array $spans, Polarity $polarity): ?self
    {
        $figures = array_map(PeerFigure::of(...), $spans);
        $peers = Peers::among($figures, $polarity);
        $ranks = array_filter($peers?->ranks() ?? [], is_int(...));
        if ($peers === null || ! isset($ranks[$unit]) || count($ranks) < self::LEAST) {
            return null;
        }
        $meets = array_filter(array_map(fn (PeerFigure $figure): ?bool => $figure->meets($polarity), array_intersect_key($figures, $ranks)), is_bool(...));
        // Codes made of digits are whole numbers where they are keys.
        $tenths = array_map(fn (array $units): bool => in_array($unit, array_map(strval(...), $units), true), $peers->tenths());

        return new self(
            $ranks[$unit],
            $ranks,
            $tenths['best'],
            $tenths['worst'],
            $polarity === Polarity::Band ? null : $peers->quartiles(),
            count($meets),
            count(array_filter($meets)),
        );
    }
}
