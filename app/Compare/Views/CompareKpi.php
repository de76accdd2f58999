<?php

declare(strict_types=1);

namespace App\Compare\Views;

use App\Figures\MeasurementFacts;
use App\Views\Shown;
use Kybernet\Core\Compare\Comparison;
use Kybernet\Core\Compare\Level;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Polarity;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI on which units are compared.')]
final readonly class CompareKpi
{
    /** So many of the best and of the last are named. */
    private const NAMED = 3;

    /**
     * @param  list<CompareCell|null>  $cells
     * @param  list<int>  $best
     * @param  list<int>  $last
     * @param  list<int>|null  $moved
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(description: 'counted from records')] public bool $counted,
        #[OA\Property(description: 'the figures of all together are a total')] public bool $total,
        #[OA\Property(items: new OA\Items(oneOf: [new OA\Schema(ref: '#/components/schemas/CompareCell'), new OA\Schema(type: 'null')]), description: 'one a unit, in their order; null where it is not measured')]
        public array $cells,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'places of the best three units, the best first')] public array $best,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'places of the last three units, the last first')] public array $last,
        #[OA\Property(description: 'null for a band: each unit has its own idea of good')] public ?Shown $median,
        #[OA\Property(description: 'lower quartile')] public ?Shown $lower,
        #[OA\Property(description: 'upper quartile')] public ?Shown $upper,
        #[OA\Property(description: 'how many have a figure')] public int $figures,
        #[OA\Property(description: 'how many of those have a target or a band')] public int $aiming,
        #[OA\Property(description: 'how many of those meet it')] public int $meeting,
        #[OA\Property(description: 'had all that are worse reached the median')] public ?CompareGain $toMedian,
        #[OA\Property(description: 'had they reached where the best quarter begins')] public ?CompareGain $toBestQuarter,
        #[OA\Property(description: 'had each reached its own target, or the nearer limit of its band')] public ?CompareGain $toTarget,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'places of the units with both figures, those first that got worse most; null without another month', type: 'array', nullable: true)]
        public ?array $moved,
    ) {}

    /**
     * @param  list<CompareCell|null>  $cells
     * @param  array<int, int>  $places  by unit
     * @param  list<int|string>|null  $moved  units
     */
    public static function of(MeasurementFacts $kpi, Comparison $comparison, array $cells, array $places, ?array $moved): self
    {
        $peers = $comparison->polarity === Polarity::Band ? null : $comparison->peers;

        return new self(
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $comparison->polarity->value,
            $kpi->measurement->definition->counted !== null,
            $kpi->measurement->definition->accumulation === Accumulation::Sum,
            $cells,
            self::placed($comparison->first(self::NAMED), $places),
            self::placed($comparison->first(self::NAMED, true), $places),
            Shown::of($peers?->level(50), $kpi),
            Shown::of($peers?->level(25), $kpi),
            Shown::of($peers?->level(75), $kpi),
            count($comparison->percentiles),
            $comparison->aiming,
            $comparison->meeting,
            CompareGain::of($comparison->gains[Level::Median->value], $kpi),
            CompareGain::of($comparison->gains[Level::BestQuarter->value], $kpi),
            CompareGain::of($comparison->gains[Level::Target->value], $kpi),
            $moved === null ? null : self::placed($moved, $places),
        );
    }

    /**
     * @param  list<int|string>  $units
     * @param  array<int, int>  $places  by unit
     * @return list<int>
     */
    private static function placed(array $units, array $places): array
    {
        return array_map(fn (int|string $unit): int => $places[$unit], $units);
    }
}
