<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Views\Shown;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A figure that is another one now than when an issue was published.')]
final readonly class ChangedFigure
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property] public string $span,
        #[OA\Property] public string $measure,
        #[OA\Property] public ?Shown $then,
        #[OA\Property] public ?Shown $now,
        #[OA\Property(ref: StatusSchema::REF)] public string $statusThen,
        #[OA\Property(ref: StatusSchema::REF)] public string $statusNow,
        #[OA\Property(description: 'its target is another one too')] public bool $target,
    ) {}
}
