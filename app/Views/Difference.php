<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Compare\Effect;
use Kybernet\Core\Compare\Variance;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A difference from a reference, and what it means.')]
final readonly class Difference
{
    private const PERCENT_DECIMALS = 1;

    public function __construct(
        #[OA\Property]
        public Shown $difference,
        #[OA\Property(description: 'in % of the reference, one decimal; null when the reference is 0')]
        public ?string $percent,
        #[OA\Property(description: 'the measure is itself a percentage, so the difference is in points')]
        public bool $points,
        #[OA\Property(enum: Effect::class)]
        public string $effect,
    ) {}

    public static function of(?Variance $variance, MeasurementFacts $kpi): ?self
    {
        return $variance === null ? null : new self(
            Shown::of($variance->difference, $kpi) ?? throw new \LogicException('A difference is a figure.'),
            $variance->percent === null ? null : (string) $variance->percent->rounded(self::PERCENT_DECIMALS),
            $kpi->measurement->definition->isPercentage(),
            ($variance->effect ?? Effect::None)->value,
        );
    }
}
