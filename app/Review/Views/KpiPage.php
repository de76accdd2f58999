<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\ActionView;
use App\Views\ColourTexts;
use App\Views\NoteView;
use App\Views\RelatedMeasurement;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in a unit, complete: how it stands, how it came there, where it is heading.')]
final readonly class KpiPage
{
    /**
     * @param  list<ChartPoint>  $history
     * @param  list<ChartPoint>  $gathered
     * @param  list<ChartPoint>  $quarters
     * @param  list<NoteView>  $notes
     * @param  list<ActionView>  $actions
     * @param  list<RuleLine>  $rules
     * @param  list<RelatedMeasurement>  $drivers
     * @param  list<RelatedMeasurement>  $places
     */
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $purpose,
        #[OA\Property] public string $measure,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(enum: Kind::class)] public string $kind,
        #[OA\Property(description: 'its parts are typed and add up to it')] public bool $hasParts,
        #[OA\Property] public ?string $formula,
        #[OA\Property(enum: Frequency::class)] public string $frequency,
        #[OA\Property] public string $accumulation,
        #[OA\Property] public ?string $objective,
        #[OA\Property] public ?string $owner,
        #[OA\Property] public string $source,
        #[OA\Property] public ?ColourTexts $texts,
        #[OA\Property(description: 'whether this user may agree actions and write notes here')] public bool $mine,
        #[OA\Property(description: 'whether this user may call a status')] public bool $mayCall,
        #[OA\Property(description: 'the latest period of the KPI by the chosen month')] public string $latest,
        #[OA\Property] public Headline $month,
        #[OA\Property] public Headline $yearToDate,
        #[OA\Property(description: 'the chosen span, where it is another one')] public ?Headline $chosen,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'three years of single periods, up to the end of this one')]
        public array $history,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'year to date, month by month of this year')] public array $gathered,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'financial quarters')] public array $quarters,
        #[OA\Property] public ?TrendLine $trend,
        #[OA\Property] public ?ControlLimits $control,
        #[OA\Property(ref: '#/components/schemas/Projection')] public ?ProjectionView $projection,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Note'), description: 'newest first')] public array $notes,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Action'), description: 'newest first')] public array $actions,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RuleLine'), description: 'newest first')] public array $rules,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RelatedMeasurement'))] public array $drivers,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RelatedMeasurement'), description: 'the same KPI in other units')] public array $places,
        #[OA\Property(description: 'among the units of its kind, on the chosen span; null where fewer than three have a figure')] public ?StandingView $standing,
    ) {}
}
