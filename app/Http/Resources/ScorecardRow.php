<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Figures\KpiFacts;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Movement;
use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One KPI of a scorecard.')]
final readonly class ScorecardRow
{
    /** @param  list<WakePoint>  $wake */
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public ?string $owner,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(enum: ['worse', 'recovered', 'better', 'none'])] public string $movement,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'what is said where there is no figure')] public string $instead,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Shown $prior,
        #[OA\Property] public ?Difference $variance,
        #[OA\Property] public ?Difference $change,
        #[OA\Property] public ?ZonesResource $zones,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property] public int $expected,
        #[OA\Property] public int $reported,
        #[OA\Property] public bool $hasNote,
        #[OA\Property(description: 'the day up to which its figure counts, where a period of it was not over')] public ?string $asOf,
    ) {}

    public static function of(
        KpiFacts $kpi,
        Assessment $assessed,
        Movement $movement,
        Status $monthStatus,
        Period $latest,
        bool $hasNote,
    ): self {
        return new self(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $kpi->owner,
            $assessed->status->value,
            $movement->value,
            Shown::of($assessed->figures->actual, $kpi),
            self::instead($kpi, $assessed),
            Shown::of($assessed->figures->goal?->target, $kpi),
            Shown::of($assessed->prior->figure, $kpi),
            Difference::of($assessed->variance, $kpi),
            Difference::of($assessed->change, $kpi),
            ZonesResource::of($assessed->zones(), $kpi->measurement->definition->polarity),
            WakePoint::upTo($kpi, $latest),
            $monthStatus->value,
            count($assessed->figures->due),
            count($assessed->figures->reported),
            $hasNote,
            $kpi->provisional($assessed->figures->reported),
        );
    }

    private static function instead(KpiFacts $kpi, Assessment $assessed): string
    {
        return match (true) {
            $assessed->figures->due === [] => 'nothing due',
            $assessed->figures->reported === [] => 'no reading',
            $kpi->measurement->definition->kind === Kind::Judged => 'a person judged',
            default => 'no value',
        };
    }
}
