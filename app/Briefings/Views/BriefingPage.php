<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Briefings\Content\Piece;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A briefing as it is read, or as it is being written.')]
final readonly class BriefingPage
{
    /**
     * @param  list<non-empty-list<Piece>>  $bands
     * @param  list<PieceView|array<mixed>>  $answers
     * @param  list<IssueLine>  $issues
     * @param  list<ChangedFigure>  $changed
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit that it is for')] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property(enum: Span::class, description: 'that it begins with')] public string $span,
        #[OA\Property(description: 'the month that is shown')] public string $period,
        #[OA\Property(enum: ['issue', 'today', 'draft', 'none'], description: 'an issue as it was published; the layout of the latest one with the figures of today; what is being written; or nothing published yet')] public string $shows,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(ref: '#/components/schemas/Piece')))] public array $bands,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/PieceAnswer'))] public array $answers,
        #[OA\Property(description: 'that is shown, or whose layout is')] public ?IssueLine $issue,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/IssueLine'), description: 'the newest first')] public array $issues,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChangedFigure'), description: 'what is another figure now')] public array $changed,
        #[OA\Property(description: 'pieces that this reader may not see')] public int $withheld,
        #[OA\Property(description: 'whether this user writes it')] public bool $mine,
        #[OA\Property(description: 'of the draft; send it back to change it')] public int $version,
        #[OA\Property(description: 'when the draft was kept')] public string $keptAt,
        #[OA\Property(description: 'and by whom')] public ?string $keptBy,
        #[OA\Property(description: 'the draft differs from the latest issue')] public bool $drafted,
    ) {}
}
