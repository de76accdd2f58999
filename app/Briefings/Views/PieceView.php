<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Compare\Views\ComparePage;
use App\Compare\Views\RanksOverTime;
use App\Review\Views\ExceptionItem;
use App\Review\Views\KpiCourse;
use App\Review\Views\MatrixPage;
use App\Review\Views\ProjectionView;
use App\Review\Views\ScorecardRow;
use App\Sources\Views\CasesPage;
use App\Sources\Views\SplitView;
use App\Views\ActionView;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PieceAnswer', description: 'What a piece of a briefing shows; of its many fields those of its kind are filled.')]
final readonly class PieceView
{
    /**
     * @param  list<ScorecardRow>|null  $rows
     * @param  list<OfferView>|null  $offered
     * @param  list<ExceptionItem>|null  $exceptions
     * @param  list<ActionView>|null  $actions
     * @param  list<DriverLine>|null  $drivers
     * @param  list<MapRegion>|null  $regions
     * @param  list<TextPart>|null  $text
     */
    public function __construct(
        #[OA\Property(description: 'of the piece')] public string $id,
        #[OA\Property(description: 'code of the unit for which it stands')] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property(description: 'why it shows nothing; blank where it does')] public string $problem,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ScorecardRow'), nullable: true)] public ?array $rows = null,
        #[OA\Property] public ?SinceView $since = null,
        #[OA\Property] public ?KpiCourse $course = null,
        #[OA\Property(ref: '#/components/schemas/Projection', nullable: true)] public ?ProjectionView $yearEnd = null,
        #[OA\Property] public ?MatrixPage $matrix = null,
        #[OA\Property] public ?ComparePage $comparison = null,
        #[OA\Property] public ?RanksOverTime $ranks = null,
        #[OA\Property] public ?SplitView $split = null,
        #[OA\Property] public ?CasesPage $cases = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/PieceOffer'), description: 'of a split or of cases: by what else it could be told', nullable: true)] public ?array $offered = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ExceptionItem'), nullable: true)] public ?array $exceptions = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Action'), nullable: true)] public ?array $actions = null,
        #[OA\Property(description: 'how many there are, shown or not')] public ?int $total = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/DriverLine'), nullable: true)] public ?array $drivers = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MapRegion'), nullable: true)] public ?array $regions = null,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/TextPart'), nullable: true)] public ?array $text = null,
        #[OA\Property(ref: '#/components/schemas/Picture', nullable: true)] public ?PictureView $picture = null,
    ) {}
}
