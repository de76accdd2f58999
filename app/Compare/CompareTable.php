<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\CompareCell;
use App\Compare\Views\CompareKpi;
use App\Compare\Views\ComparePage;
use App\Compare\Views\CompareUnit;
use App\Organisation\Organisation;

/**
 * A comparison as a table: a row a unit, and for each KPI its exact figure, what it should be, rank and percentile.
 */
final readonly class CompareTable
{
    private const UNIT = ['unit', 'name'];

    public function __construct(private Organisation $organisation) {}

    /**
     * @param  bool  $isMasked  letters in place of codes and names
     * @return iterable<list<string>>
     */
    public function rows(ComparePage $page, bool $isMasked): iterable
    {
        yield [...self::UNIT, ...array_merge(...array_map($this->heads(...), $page->kpis))];
        foreach ($page->units as $at => $unit) {
            yield [
                ...($isMasked ? ['', $this->mask($unit)] : [$unit->code, $unit->name]),
                ...array_merge(...array_map(fn (CompareKpi $kpi): array => $this->cells($kpi, $kpi->cells[$at]), $page->kpis)),
            ];
        }
    }

    /** @return list<int> the columns that hold figures */
    public function figures(ComparePage $page): array
    {
        $columns = array_sum(array_map(fn (CompareKpi $kpi): int => count($this->heads($kpi)), $page->kpis));

        return $columns === 0 ? [] : range(count(self::UNIT), count(self::UNIT) + $columns - 1);
    }

    /** @return list<string> */
    private function heads(CompareKpi $kpi): array
    {
        $name = $kpi->name.($kpi->counted ? ' from records' : '');

        return [
            trim("{$name}, {$kpi->measure}", ', '),
            ...($kpi->polarity === 'band' ? ["{$name}, from", "{$name}, to"] : ["{$name}, target"]),
            "{$name}, rank",
            "{$name}, percentile",
            ...($kpi->moved === null ? [] : ["{$name}, then", "{$name}, change"]),
        ];
    }

    /** @return list<string> */
    private function cells(CompareKpi $kpi, ?CompareCell $cell): array
    {
        return [
            $cell->actual->exact ?? '',
            ...($kpi->polarity === 'band' ? [$cell->low->exact ?? '', $cell->high->exact ?? ''] : [$cell->target->exact ?? '']),
            (string) $cell?->rank,
            $cell?->percentile === null ? '' : (string) round($cell->percentile, 2),
            ...($kpi->moved === null ? [] : [$cell->then->exact ?? '', $cell->change->difference->exact ?? '']),
        ];
    }

    private function mask(CompareUnit $unit): string
    {
        return $this->organisation->masked($this->organisation->byCode($unit->code) ?? throw new \LogicException('A unit that is compared is there.'));
    }
}
