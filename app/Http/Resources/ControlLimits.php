<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Signal;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Between which figures chance alone moves the KPI, and where something else did.')]
final readonly class ControlLimits
{
    /** @param  list<ControlSignal>  $signals */
    private function __construct(
        #[OA\Property] public float $centre,
        #[OA\Property] public float $lower,
        #[OA\Property] public float $upper,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ControlSignal'))] public array $signals,
    ) {}

    public static function of(?ControlChart $chart): ?self
    {
        return $chart === null ? null : new self($chart->centre, $chart->lower, $chart->upper, array_map(
            fn (Signal $signal): ControlSignal => new ControlSignal($signal->period->key(), $signal->words(), $signal->side),
            $chart->signals,
        ));
    }
}
