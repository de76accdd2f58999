<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Replay;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Replay', description: 'The latest periods as they were judged, and as they would have been.')]
final readonly class ReplayView
{
    /** @param  list<ReplayPeriod>  $periods */
    private function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ReplayPeriod'), description: 'earliest first')] public array $periods,
        #[OA\Property(ref: '#/components/schemas/Counts')] public CountsView $asIs,
        #[OA\Property(ref: '#/components/schemas/Counts')] public CountsView $asTyped,
        #[OA\Property(description: 'what would change, in a sentence')] public string $words,
        #[OA\Property(description: 'how the latest period with a reading would be judged, in a sentence')] public string $latest,
        #[OA\Property] public ?ZonesView $zones,
    ) {}

    /**
     * @param  Measurement  $tried  under the rule that is tried
     * @param  Assessment|null  $assessed  of the latest period with a reading, as it is tried
     */
    public static function of(MeasurementFacts $kpi, Replay $replay, Measurement $tried, ?Period $latest, ?Assessment $assessed): self
    {
        $written = fn (?Exact $figure): ?string => $figure === null ? null : (string) $figure;

        return new self(
            array_map(fn (Period $period, int $at): ReplayPeriod => new ReplayPeriod(
                $period->key(),
                $replay->asIs[$at]->value,
                $replay->asTyped[$at]->value,
                $replay->changes($at),
                $written($kpi->shows($tried->actuals->figure($period))),
                $written($tried->targets->goal($period)?->lower()),
            ), $replay->periods, array_keys($replay->periods)),
            CountsView::of($replay->countsAsIs()),
            CountsView::of($replay->countsAsTyped()),
            $replay->words(),
            $assessed === null || $latest === null ? '' : "{$latest->words()}: {$assessed->reason(false)}",
            ZonesView::of($assessed?->zones(), $tried->definition->polarity),
        );
    }
}
