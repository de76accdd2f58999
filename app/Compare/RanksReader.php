<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\RankLine;
use App\Compare\Views\RanksOverTime;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\PeerFigure;
use Kybernet\Core\Compare\Peers;
use Kybernet\Core\Scorecard;

/**
 * How like units have ranked on one KPI over the last months. Figures are gathered, nothing is judged: a year of many
 * units would take too long, and is looked at now and then.
 */
final readonly class RanksReader
{
    private const MONTHS = 13;

    /** A rolling year reaches back so many months from its last. */
    private const REACH = 11;

    public function __construct(private LikeUnits $likeUnits, private MeasurementStore $kpis, private Organisation $organisation, private Scorecard $scorecard) {}

    public function read(Unit $unit, Period $chosen, Span $span, string $kind, string $code, User $user): RanksOverTime
    {
        $shared = $this->likeUnits->under($unit, $kind, $chosen, $user);
        [$measured, $kpi] = [$shared->of($code), $shared->facts[$code] ?? null];
        $months = $chosen->plus(1 - self::MONTHS)->to($chosen);
        $facts = $this->kpis->whole(array_values($measured), $months[0]->plus(-self::REACH), $this->scorecard->year->months($chosen)[11]);
        $ranks = array_map(fn (): array => [], $measured);
        foreach ($months as $month) {
            $figures = array_map(fn (int $id): PeerFigure => PeerFigure::of($this->scorecard->figures($facts[$id]->measurement, $month, $span)), $measured);
            $found = $kpi === null ? [] : Peers::among($figures, $kpi->measurement->definition->polarity)?->ranks() ?? [];
            foreach (array_keys($ranks) as $id) {
                $ranks[$id][] = $found[$id] ?? null;
            }
        }

        return new RanksOverTime($code, array_map(fn (Period $month): string => $month->key(), $months), array_map(
            fn (int $id, array $of): RankLine => new RankLine($this->organisation->unit($id)->code, $of),
            array_keys($ranks),
            $ranks,
        ));
    }
}
