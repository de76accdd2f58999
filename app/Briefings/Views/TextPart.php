<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Views\Difference;
use App\Views\Shown;
use App\Views\StatusSchema;
use Kybernet\Core\Attention\LiveFigure;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A stretch of words, or a figure in it that follows the page.')]
final readonly class TextPart
{
    public function __construct(
        #[OA\Property(description: 'the words; of a figure how it is written')] public string $words,
        #[OA\Property(description: 'whether it is a figure')] public bool $live = false,
        #[OA\Property(description: 'what of the KPI it is', enum: LiveFigure::WHAT)] public string $what = '',
        #[OA\Property(description: 'code of the KPI')] public string $code = '',
        #[OA\Property(description: 'code of the unit')] public string $unit = '',
        #[OA\Property] public string $measure = '',
        #[OA\Property(ref: StatusSchema::REF, nullable: true)] public ?string $status = null,
        #[OA\Property] public ?Shown $figure = null,
        #[OA\Property] public ?Difference $difference = null,
    ) {}
}
