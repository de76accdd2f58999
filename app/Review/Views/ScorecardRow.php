<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Figures\MeasurementLine;
use App\Kept\AssessedSpan;
use App\Views\CourseView;
use App\Views\Difference;
use App\Views\Shown;
use App\Views\StatusSchema;
use App\Views\TrackView;
use App\Views\WakePoint;
use App\Views\ZonesView;
use Kybernet\Core\Status\Movement;
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
        #[OA\Property(description: 'it is counted from records')] public bool $counted,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(description: 'a green that has reached its stretch')] public bool $stretched,
        #[OA\Property(description: 'a person called the status')] public bool $called,
        #[OA\Property(enum: Movement::class)] public string $movement,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'what is said where there is no figure')] public string $instead,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Shown $prior,
        #[OA\Property] public ?Difference $variance,
        #[OA\Property] public ?Difference $change,
        #[OA\Property(description: 'against the previous period; only where the span holds one')] public ?Difference $step,
        #[OA\Property] public ?ZonesView $zones,
        #[OA\Property(description: 'null where nothing is judged')] public ?CourseView $course,
        #[OA\Property(description: 'of what is only counted')] public ?TrackView $track,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the chosen month alone')] public string $monthStatus,
        #[OA\Property] public int $expected,
        #[OA\Property] public int $reported,
        #[OA\Property] public bool $hasNote,
        #[OA\Property(enum: ['none', 'open', 'overdue'], description: 'whether something is being done about it')] public string $action,
        #[OA\Property(description: 'the day up to which its figure counts, where a period of it was not over')] public ?string $asOf,
        #[OA\Property(description: 'the week that it is of, where one is looked at and the KPI has weeks')] public ?string $week,
    ) {}

    /** @param  string  $unit  its code */
    public static function of(MeasurementLine $kpi, AssessedSpan $assessed, Movement $movement, bool $hasNote, string $unit, string $action, ?string $week = null): self
    {
        return new self(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measure,
            $kpi->owner,
            $unit,
            $kpi->theme ?? '',
            $kpi->level,
            (string) $kpi->weight->stripTrailingZeros(),
            $kpi->isCounted,
            $assessed->status,
            $assessed->stretched,
            $assessed->called,
            $movement->value,
            $assessed->actual,
            $assessed->instead,
            $assessed->target,
            $assessed->prior,
            $assessed->variance,
            $assessed->change,
            $assessed->step,
            $assessed->zones,
            $assessed->course,
            $assessed->track,
            $assessed->wake,
            $assessed->monthStatus,
            $assessed->expected,
            $assessed->reported,
            $hasNote,
            $action,
            $assessed->asOf,
            $week,
        );
    }
}
