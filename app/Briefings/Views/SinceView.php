<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Views\Difference;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Since', description: 'How a figure has changed since an earlier month.')]
final readonly class SinceView
{
    public function __construct(
        #[OA\Property(description: 'the earlier month')] public string $month,
        #[OA\Property] public ?Difference $change,
    ) {}
}
