<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use App\Views\Shown;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Something to look at before a month is closed.')]
final readonly class ClosingItem
{
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in its unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property(description: 'whom to ask')] public ?string $owner,
        #[OA\Property] public string $period,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'what is the matter, in words')] public string $words,
    ) {}
}
