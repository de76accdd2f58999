<?php

declare(strict_types=1);

namespace App\Compare\Views;

use App\Figures\MeasurementFacts;
use App\Kept\KeptFigure;
use App\Views\Difference;
use App\Views\Shown;
use Kybernet\Core\Compare\Variance;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in one of the units that are compared.')]
final readonly class CompareCell
{
    public function __construct(
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'what is said where there is no figure')] public string $instead,
        #[OA\Property(description: 'of this unit')] public ?Shown $target,
        #[OA\Property(description: 'where its band begins')] public ?Shown $low,
        #[OA\Property(description: 'where its band ends')] public ?Shown $high,
        #[OA\Property(description: '1 for the best; equal figures share the better rank; null for what is only tracked')] public ?int $rank,
        #[OA\Property(description: '0 to 100: the share of the others with a smaller figure; with a band with a smaller distance from it')] public ?float $percentile,
        #[OA\Property(description: 'whether it is in the best or in the worst tenth', enum: ['best', 'worst'])] public ?string $tenth,
        #[OA\Property(description: 'in the other month')] public ?Shown $then,
        #[OA\Property(description: 'from the other month')] public ?Difference $change,
    ) {}

    public static function of(MeasurementFacts $kpi, KeptFigure $figure, ?int $rank, ?float $percentile, ?string $tenth, ?KeptFigure $then, ?Variance $moved): self
    {
        return new self($figure->actual, $figure->instead, $figure->target, $figure->band[0] ?? null, $figure->band[1] ?? null, $rank, $percentile, $tenth, $then?->actual, Difference::of($moved, $kpi));
    }
}
