<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Figures\MeasurementFacts;
use App\Views\Shown;
use App\Views\StatusSchema;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\ProjectionMethod;
use Kybernet\Core\Trend\Range;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Projection', description: 'Where the year ends if it goes on like this.')]
final readonly class ProjectionView
{
    /** @param  list<ProjectedPoint>  $path */
    private function __construct(
        #[OA\Property(enum: ProjectionMethod::class)] public string $method,
        #[OA\Property] public ?Shown $value,
        #[OA\Property(description: 'with high: between what it ends four times in five; null where that cannot be told')] public ?Shown $low,
        #[OA\Property] public ?Shown $high,
        #[OA\Property(description: 'of ending at or better than the year target, 0 to 1')] public ?float $chance,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public ?Shown $yearTarget,
        #[OA\Property(description: 'what each period that is left needs to reach the year target')] public ?Shown $required,
        #[OA\Property(description: 'of the year target reached, in %, one decimal')] public ?string $progress,
        #[OA\Property(description: 'of the year gone, in %, one decimal')] public string $elapsed,
        #[OA\Property(description: 'periods of the year that are left')] public int $left,
        #[OA\Property(description: 'the last period of the year')] public string $end,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ProjectedPoint'))] public array $path,
    ) {}

    /**
     * @param  array<string, Exact>  $path  by period
     * @param  int  $left  periods of the year that are left
     */
    public static function of(?Projection $projection, ?Range $range, array $path, int $left, string $end, MeasurementFacts $kpi): ?self
    {
        return $projection === null ? null : new self(
            $projection->method->value,
            Shown::of($projection->value, $kpi),
            self::end($range?->low, $kpi),
            self::end($range?->high, $kpi),
            $range?->chance,
            $projection->status->value,
            Shown::of($projection->yearTarget, $kpi),
            Shown::of($projection->requiredPerPeriod, $kpi),
            $projection->progressPercent === null ? null : (string) $projection->progressPercent->rounded(1),
            (string) $projection->elapsedPercent->rounded(1),
            $left,
            $end,
            array_map(fn (string $period, Exact $figure): ProjectedPoint => new ProjectedPoint($period, (string) $figure), array_keys($path), array_values($path)),
        );
    }

    /** An end of the range is a statistic: it is shown with as many decimals as the KPI has. */
    private static function end(?float $figure, MeasurementFacts $kpi): ?Shown
    {
        return $figure === null ? null : Shown::of(Exact::of(sprintf('%.12F', $figure)), $kpi);
    }
}
