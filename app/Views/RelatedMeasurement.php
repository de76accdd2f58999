<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Compare\Moving;
use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in a unit, told in one line beside another.')]
final readonly class RelatedMeasurement
{
    /** @param  list<WakePoint>  $wake */
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property(description: 'of a driver: how closely the two have moved together, −1 to 1')] public ?float $together,
        #[OA\Property(enum: Moving::class)] public ?string $moving,
        #[OA\Property(description: 'of the same KPI in another unit: its place among the units of that kind, 1 for the best')] public ?int $rank,
    ) {}

    public static function of(MeasurementFacts $kpi, string $unit, Assessment $assessed, Status $monthStatus, Period $latest, ?float $together = null, ?int $rank = null): self
    {
        return new self(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $unit,
            $assessed->status->value,
            Shown::of($assessed->figures->actual, $kpi),
            WakePoint::upTo($kpi, $latest),
            $monthStatus->value,
            $together,
            $together === null ? null : Moving::of($together)->value,
            $rank,
        );
    }
}
