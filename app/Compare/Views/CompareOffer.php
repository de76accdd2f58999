<?php

declare(strict_types=1);

namespace App\Compare\Views;

use App\Figures\MeasurementFacts;
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

    public static function of(MeasurementFacts $kpi, int $units): self
    {
        return new self($kpi->code, $kpi->name, $kpi->measurement->definition->measure, $units);
    }
}
