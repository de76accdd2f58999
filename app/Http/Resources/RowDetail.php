<?php

declare(strict_types=1);

namespace App\Http\Resources;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A scorecard row opened in place.')]
final readonly class RowDetail
{
    /**
     * @param  list<MonthFigure>  $months
     * @param  list<NoteResource>  $notes
     */
    public function __construct(
        #[OA\Property] public string $purpose,
        #[OA\Property(ref: '#/components/schemas/Verdict', description: 'of the chosen span')] public Verdict $verdict,
        #[OA\Property(description: 'how the months become the figure of the span')] public string $accumulation,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MonthFigure'), description: 'of the financial year')]
        public array $months,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Note'), description: 'newest first')] public array $notes,
    ) {}
}
