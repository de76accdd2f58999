<?php

declare(strict_types=1);

namespace App\Compare\Views;

use App\Figures\MeasurementLine;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI on which they can be compared.')]
final readonly class CompareOffer
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'in how many of them it is measured')] public int $units,
    ) {}

    /** @param  non-empty-list<MeasurementLine>  $of  one a unit */
    public static function of(array $of): self
    {
        return new self($of[0]->code, $of[0]->name, $of[0]->measure, count($of));
    }
}
