<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use App\Figures\ReadingStage;
use App\Logbook\MonthEntry;
use App\Views\ColourTexts;
use App\Views\LockSchema;
use App\Views\NoteView;
use App\Views\Shown;
use App\Views\StatusSchema;
use App\Views\Verdict;
use App\Views\WakePoint;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI of the month sheet for one of its periods: what to compare with, what is entered, and how it is judged.')]
final readonly class LogbookRow
{
    /**
     * @param  list<LogbookPart>  $parts
     * @param  list<WakePoint>  $wake
     */
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property(description: 'in the frequency of the KPI: 2026-08, 2026-W34, FY2026-Q2')] public string $period,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public string $unit,
        #[OA\Property] public string $unitCode,
        #[OA\Property(enum: Kind::class)] public string $kind,
        #[OA\Property(description: 'of the period before')] public ?Shown $lastMonth,
        #[OA\Property(description: 'of the same period a year earlier')] public ?Shown $lastYear,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the period before')] public string $lastStatus,
        #[OA\Property(ref: StatusSchema::REF, description: 'of the same period a year earlier')] public string $lastYearStatus,
        #[OA\Property(description: 'of a band its lower end')] public ?Shown $target,
        #[OA\Property(description: 'the upper end of a band')] public ?Shown $upper,
        #[OA\Property(description: 'the reading as this user would type it, blank when there is none; of a judged KPI its colour')] public string $typed,
        #[OA\Property(description: 'send it back to change the reading; 0 when there never was one')] public int $version,
        #[OA\Property(enum: ['none', 'entered', 'submitted'])] public string $state,
        #[OA\Property(description: 'the day up to which the figure counts, where its period was not over')] public ?string $asOf,
        #[OA\Property(ref: LockSchema::REF)] public string $lock,
        #[OA\Property(description: 'that works it out; blank where there is none')] public string $formula,
        #[OA\Property(description: 'what is counted from records, whatever stands over it; null where nothing is')] public ?Shown $counted,
        #[OA\Property(description: 'a figure by hand stands over the counted one')] public bool $byHand,
        #[OA\Property(description: 'this user may put one there, or take it back')] public bool $overable,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/LogbookPart'), description: 'that are typed and add up to it')] public array $parts,
        #[OA\Property(description: 'it is split by what its records say')] public bool $split,
        #[OA\Property(description: 'a colour is typed, with its reason')] public bool $asksReason,
        #[OA\Property(description: 'whether a bad colour must be explained before the month is submitted')] public bool $needsNote,
        #[OA\Property(ref: '#/components/schemas/ColourTexts')] public ColourTexts $texts,
        #[OA\Property(ref: '#/components/schemas/Verdict')] public Verdict $verdict,
        #[OA\Property] public ?NoteView $note,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'))] public array $wake,
    ) {}

    /**
     * @param  array{Status, Status}  $before  statuses of the period before and a year earlier
     * @param  list<LogbookPart>  $parts
     */
    public static function of(MonthEntry $entry, string $unit, string $unitCode, Verdict $verdict, array $before, string $typed, array $parts): self
    {
        [$kpi, $period] = [$entry->kpi, $entry->period];
        $series = $kpi->measurement->actuals;
        $shown = fn (?Period $at): ?Shown => $at === null ? null : Shown::of($series->figure($at), $kpi);
        $goal = $entry->assessed->figures->goal;

        return new self(
            $kpi->id,
            $period->key(),
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $unit,
            $unitCode,
            $kpi->measurement->definition->kind->value,
            $shown($period->previous()),
            $shown($period->yearEarlier()),
            $before[0]->value,
            $before[1]->value,
            Shown::of($goal?->band === null ? $goal?->target : $goal->band->low, $kpi),
            Shown::of($goal?->band?->high, $kpi),
            $typed,
            $entry->version,
            $typed === '' ? 'none' : ($entry->stage ?? ReadingStage::Entered)->value,
            $kpi->measurement->definition->kind === Kind::Formula ? null : $kpi->provisional([$period]),
            LockSchema::of($entry->lock),
            $kpi->measurement->definition->formula->text ?? '',
            $series instanceof RecordFigures ? Shown::of($series->counted($period), $kpi) : null,
            $series instanceof RecordFigures && $series->byHand->has($period),
            $entry->isOverable,
            $parts,
            $kpi->isSplit,
            Owed::asksReason($kpi->measurement->definition),
            $kpi->needsNote,
            ColourTexts::of($kpi->texts),
            $verdict,
            $entry->note === null ? null : NoteView::of($entry->note, $period->key()),
            WakePoint::upTo($kpi, $period),
        );
    }
}
