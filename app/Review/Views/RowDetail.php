<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\ActionView;
use App\Views\ColourTexts;
use App\Views\NoteView;
use App\Views\RelatedMeasurement;
use App\Views\StatusSchema;
use App\Views\Verdict;
use App\Views\WakePoint;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A scorecard row opened in place.')]
final readonly class RowDetail
{
    /**
     * @param  list<MonthFigure>  $months
     * @param  list<NoteView>  $notes
     * @param  list<WakePoint>  $wake
     * @param  list<RelatedMeasurement>  $drivers
     * @param  list<ActionView>  $actions
     */
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public string $purpose,
        #[OA\Property(ref: '#/components/schemas/Verdict', description: 'of the chosen span')] public Verdict $verdict,
        #[OA\Property(description: 'how the months become the figure of the span')] public string $accumulation,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MonthFigure'), description: 'of the financial year')]
        public array $months,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Note'), description: 'up to today, newest first')] public array $notes,
        #[OA\Property] public Headline $headline,
        #[OA\Property] public ColourTexts $texts,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RelatedMeasurement'))] public array $drivers,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Action'), description: 'those still open')] public array $actions,
        #[OA\Property(description: 'it is counted from records')] public bool $counted,
    ) {}
}
