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
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property] public string $theme,
        #[OA\Property(enum: ['organisational', 'departmental', 'operational'])] public string $level,
        #[OA\Property(description: 'in the roll-up')] public string $weight,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(description: 'a green that has reached its stretch')] public bool $stretched,
        #[OA\Property(description: 'a person called the status')] public bool $called,
        #[OA\Property(enum: ['worse', 'recovered', 'better', 'none'])] public string $movement,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'what is said where there is no figure')] public string $instead,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Shown $prior,
        #[OA\Property] public ?Difference $variance,
        #[OA\Property] public ?Difference $change,
        #[OA\Property(description: 'against the previous period; only where the span holds one')] public ?Difference $step,
        #[OA\Property] public ?ZonesResource $zones,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property] public int $expected,
        #[OA\Property] public int $reported,
        #[OA\Property] public bool $hasNote,
        #[OA\Property(enum: ['none', 'open', 'overdue'], description: 'whether something is being done about it')] public string $action,
        #[OA\Property(description: 'the day up to which its figure counts, where a period of it was not over')] public ?string $asOf,
    ) {}

    public static function of(
        KpiFacts $kpi,
        Assessment $assessed,
        Movement $movement,
        Status $monthStatus,
        Period $latest,
        bool $hasNote,
        string $unit,
        string $action,
    ): self {
        return new self(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $kpi->owner,
            $unit,
            $kpi->theme ?? '',
            $kpi->level,
            (string) $kpi->weight->stripTrailingZeros(),
            $assessed->status->value,
            $assessed->isStretched(),
            $assessed->call !== null,
            $movement->value,
            Shown::of($assessed->figures->actual, $kpi),
            self::instead($kpi, $assessed),
            Shown::of($assessed->figures->goal?->target, $kpi),
            Shown::of($assessed->prior->figure, $kpi),
            Difference::of($assessed->variance, $kpi),
            Difference::of($assessed->change, $kpi),
            Difference::of($assessed->step, $kpi),
            ZonesResource::of($assessed->zones(), $kpi->measurement->definition->polarity),
            WakePoint::upTo($kpi, $latest),
            $monthStatus->value,
            count($assessed->figures->due),
            count($assessed->figures->reported),
            $hasNote,
            $action,
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
