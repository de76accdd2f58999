<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Figures\KpiFacts;
use App\Support\NumberSetting;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI of the month sheet: what to compare with, what is entered, and how it is judged.')]
final readonly class LogbookRow
{
    /** @param  list<WakePoint>  $wake */
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public string $unit,
        #[OA\Property] public ?Shown $lastMonth,
        #[OA\Property] public ?Shown $lastYear,
        #[OA\Property] public ?Shown $target,
        #[OA\Property(description: 'the reading as this user would type it, blank when there is none')] public string $typed,
        #[OA\Property(description: 'send it back to change the reading; 0 when there never was one')] public int $version,
        #[OA\Property(ref: '#/components/schemas/Verdict')] public Verdict $verdict,
        #[OA\Property] public ?NoteResource $note,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
    ) {}

    public static function of(
        KpiFacts $kpi,
        string $unit,
        Period $month,
        Assessment $assessed,
        ?Streak $streak,
        int $version,
        ?NoteResource $note,
        NumberSetting $setting,
    ): self {
        $series = $kpi->measurement->actuals;
        $shown = fn (Period $at): ?Shown => Shown::of($series->figure($at), $kpi);

        return new self(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $unit,
            $shown($month->previous()),
            $shown($month->plus(-12)),
            Shown::of($assessed->figures->goal?->target, $kpi),
            $setting->write($series->figure($month)?->toDecimal(), $kpi->scaled ? 0 : $kpi->measurement->definition->decimals),
            $version,
            Verdict::of($assessed, $streak),
            $note,
            WakePoint::ofMonths($kpi, $month),
        );
    }
}
