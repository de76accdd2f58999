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
        $figures = [];
        $meets = [];
        foreach ($spans as $code => $span) {
            $figure = PeerFigure::of($span);
            $ranked = $figure->ranked($polarity);
            if ($ranked !== null) {
                $figures[$code] = $ranked;
                $meets[$code] = $figure->meets($polarity);
            }
        }
        $meets = array_filter($meets, is_bool(...));
        if (! isset($figures[$unit]) || count($figures) < self::LEAST || $polarity === Polarity::None) {
            return null;
        }
        $peers = Peers::of($figures, $polarity === Polarity::Band ? Polarity::Lower : $polarity);
        $ranks = array_filter($peers->ranks(), is_int(...));
        $tenths = $peers->tenths();

        return new self(
            $ranks[$unit],
            $ranks,
            in_array($unit, $tenths['best'], true),
            in_array($unit, $tenths['worst'], true),
            $polarity === Polarity::Band ? null : $peers->quartiles(),
            count($meets),
            count(array_filter($meets)),
        );
    }
}
