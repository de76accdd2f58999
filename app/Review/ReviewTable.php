<?php

declare(strict_types=1);

namespace App\Review;

use App\Organisation\Organisation;
use App\Review\Views\ExceptionsPage;
use App\Review\Views\MatrixCell;
use App\Review\Views\MatrixLine;
use App\Review\Views\MatrixPage;
use App\Review\Views\ScorecardPage;
use App\Views\ActionView;
use App\Views\Difference;
use App\Views\ExceptionReason;
use App\Views\Shown;

/**
 * What the managers' screens show, as tables: the exact figures, not those rounded for the eye.
 */
final readonly class ReviewTable
{
    public const SCORECARD_FIGURES = [7, 8, 9, 10, 11, 12, 13, 14, 15, 16];

    public const SCORECARD_STATUSES = [5, 6];

    public const EXCEPTION_FIGURES = [0, 5, 6];

    public const EXCEPTION_STATUSES = [4];

    /** The origin of what nobody typed. */
    private const RECORDS = 'records';

    public function __construct(private Organisation $organisation) {}

    /** @return iterable<list<string>> */
    public function scorecard(ScorecardPage $page): iterable
    {
        yield ['group', 'unit', 'kpi', 'name', 'measure', 'status', 'month', 'actual', 'target', 'last year', 'to target', 'to target %',
            'to last year', 'to last year %', 'expected', 'reported', 'weight', 'owner', 'action', 'origin'];
        foreach ($page->groups as $group) {
            foreach ($group->rows as $row) {
                yield [
                    $group->name, $this->unit($row->unit), $row->code, $row->name, $row->measure, $row->status, $row->monthStatus,
                    self::exact($row->actual), self::exact($row->target), self::exact($row->prior),
                    ...self::difference($row->variance), ...self::difference($row->change),
                    (string) $row->expected, (string) $row->reported, $row->weight, $row->owner ?? '', $row->action === 'none' ? '' : $row->action, $row->counted ? self::RECORDS : '',
                ];
            }
        }
        foreach ($page->units as $unit) {
            yield ['units', $unit->name, '', '', '', $unit->status, '', ...array_fill(0, 13, '')];
        }
    }

    /** @return iterable<list<string>> */
    public function exceptions(ExceptionsPage $page): iterable
    {
        yield ['rank', 'unit', 'kpi', 'name', 'status', 'actual', 'points', 'measure', 'reasons', 'note', 'actions', 'owner', 'origin'];
        foreach ($page->items as $at => $item) {
            yield [
                (string) ($at + 1), $this->unit($item->unit), $item->code, $item->name, $item->status, self::exact($item->actual), $item->points, $item->measure,
                implode(' ', array_map(fn (ExceptionReason $reason): string => $reason->text, $item->reasons)),
                $item->note->text ?? '',
                implode('; ', array_map(fn (ActionView $action): string => "{$action->what} ({$action->who}, by {$action->due})", $item->actions)),
                $item->owner ?? '',
                $item->counted ? self::RECORDS : '',
            ];
        }
    }

    /**
     * Statuses first, then the same crossing with the figures.
     *
     * @param  list<string>  $counted  codes of the KPIs that are counted from records
     * @param  bool  $isMasked  letters in place of the names of units
     * @return iterable<list<string>>
     */
    public function matrix(MatrixPage $page, array $counted, bool $isMasked): iterable
    {
        $isMonths = $page->crossing !== 'units-kpis';
        $heads = array_map(fn (MatrixLine $column): string => $isMonths ? $column->key : $column->name, $page->columns);
        $figure = fn (MatrixLine $column, string $head): string => "{$head}, figure".(in_array($isMonths ? $page->kpi : $column->key, $counted, true) ? ' from records' : '');
        yield ['', ...$heads, ...($isMonths ? [] : ['together']), ...($this->hasFigures($page) ? array_map($figure, $page->columns, $heads) : [])];
        foreach ($page->rows as $at => $row) {
            $cells = $page->cells[$at];
            yield [
                match (true) {
                    $page->crossing !== 'kpis-months' => $isMasked ? $this->mask($row->key) : $row->name,
                    default => in_array($row->key, $counted, true) ? "{$row->name}, from records" : $row->name,
                },
                ...array_map(fn (?MatrixCell $cell): string => $cell->status ?? '', $cells),
                ...($isMonths ? [] : [$row->status ?? '']),
                ...($this->hasFigures($page) ? array_map(fn (?MatrixCell $cell): string => self::exact($cell?->actual), $cells) : []),
            ];
        }
        yield ['together', ...array_map(fn (MatrixLine $column): string => $column->status ?? '', $page->columns), ...($isMonths ? [] : [$page->status ?? ''])];
    }

    /** @return array{list<int>, list<int>} the columns of a matrix that hold figures, and those that hold statuses */
    public function matrixColumns(MatrixPage $page): array
    {
        $statuses = count($page->columns) + ($page->crossing === 'units-kpis' ? 1 : 0);

        return [
            $this->hasFigures($page) ? range($statuses + 1, $statuses + count($page->columns)) : [],
            range(1, max(1, $statuses)),
        ];
    }

    private function hasFigures(MatrixPage $page): bool
    {
        return array_filter(array_merge(...$page->cells), fn (?MatrixCell $cell): bool => $cell?->actual !== null) !== [];
    }

    private function mask(string $code): string
    {
        return $this->organisation->masked($this->organisation->byCode($code) ?? throw new \LogicException('A unit of a matrix is there.'));
    }

    private function unit(string $code): string
    {
        return $this->organisation->byCode($code)->name ?? $code;
    }

    private static function exact(?Shown $figure): string
    {
        return $figure->exact ?? '';
    }

    /** @return array{string, string} the difference, and in % */
    private static function difference(?Difference $difference): array
    {
        return [$difference->difference->exact ?? '', $difference->percent ?? ''];
    }
}
