<?php

declare(strict_types=1);

namespace App\Review\Views;

use Brick\Math\BigDecimal;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Signal;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Between which figures chance alone moves the KPI, and where something else did.')]
final readonly class ControlLimits
{
    /** @param  list<ControlSignal>  $signals */
    private function __construct(
        #[OA\Property] public float $centre,
        #[OA\Property(description: 'null where no figure can be that low')] public ?float $lower,
        #[OA\Property] public float $upper,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ControlSignal'))] public array $signals,
    ) {}

    /** @param  BigDecimal|null  $least  what one period's figure cannot fall below */
    public static function of(?ControlChart $chart, ?BigDecimal $least): ?self
    {
        return $chart === null ? null : new self($chart->centre, $least !== null && $chart->lower < $least->toFloat() ? null : $chart->lower, $chart->upper, array_map(
            fn (Signal $signal): ControlSignal => new ControlSignal($signal->period->key(), $signal->words(), $signal->side->value),
            $chart->signals,
        ));
    }
}
