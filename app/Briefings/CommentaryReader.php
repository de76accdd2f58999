<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Review\ExceptionReader;
use App\Review\Views\ExceptionItem;
use App\Review\Views\GoodNews;
use App\Views\ActionView;
use App\Views\ExceptionReason;
use Carbon\CarbonImmutable;
use Kybernet\Core\Attention\Agreed;
use Kybernet\Core\Attention\Commentary;
use Kybernet\Core\Attention\ReasonCode;
use Kybernet\Core\Attention\Told;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Drafts the text of a month from what deserves attention, its notes and actions.
 */
final readonly class CommentaryReader
{
    /** Of so many the run of their colours is told. */
    private const RUNS = 5;

    private const MONTHS_BACK = 24;

    public function __construct(private ExceptionReader $exceptions, private MeasurementStore $kpis, private Scorecard $scorecard, private Organisation $organisation) {}

    public function draft(Unit $unit, Period $month, Span $span, User $user): string
    {
        $page = $this->exceptions->page($unit, $month, $span, $user);
        $first = array_map(fn (ExceptionItem $item): int => $item->id, array_slice($page->items, 0, self::RUNS));
        $facts = $first === [] ? [] : $this->kpis->whole($first, $month->plus(-self::MONTHS_BACK), $month);
        $told = array_map(fn (ExceptionItem $item): Told => new Told(
            $item->code,
            $item->name,
            ...$this->place($item->unit, $unit),
            status: Status::from($item->status),
            reasons: array_map(fn (ExceptionReason $reason): ReasonCode => ReasonCode::from($reason->code), $item->reasons),
            run: isset($facts[$item->id]) ? $this->scorecard->streak($facts[$item->id]->measurement, $month)->length ?? 0 : 0,
            why: $item->note->text ?? '',
            outlook: $item->note->outlook ?? '',
            actions: array_map(fn (ActionView $action): Agreed => new Agreed($action->what, $action->who, CarbonImmutable::parse($action->due)->format('j F'), $action->overdue), $item->actions),
        ), $page->items);
        $good = array_map(fn (GoodNews $news): Told => new Told($news->code, $news->name, ...$this->place($news->unit, $unit), status: Status::Green, reasons: [], isRecovered: true), $page->goodNews);

        return implode("\n\n", Commentary::draft([...$told, ...$good]));
    }

    /** @return array{unit: string, unitName: string} blank for the unit of the page */
    private function place(string $code, Unit $page): array
    {
        return $code === $page->code ? ['unit' => '', 'unitName' => ''] : ['unit' => $code, 'unitName' => $this->organisation->byCode($code)->name ?? $code];
    }
}
