<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Briefings\Views\DriverLine;
use App\Briefings\Views\MapRegion;
use App\Briefings\Views\PieceView;
use App\Briefings\Views\TextPart;
use App\Compare\Views\CompareKpi;
use App\Compare\Views\CompareUnit;
use App\Review\Views\ExceptionItem;
use App\Review\Views\MatrixLine;
use App\Review\Views\ScorecardRow;
use App\Views\ActionView;

/**
 * Which figures stand on a page: by them it is decided who may read which piece, and found what has changed since.
 */
final class ShownFigures
{
    /**
     * @param  list<PieceView>  $answers
     * @return array<string, list<array{string, string}>> by piece: code of the KPI and of the unit; a blank code stands for every figure of the unit
     */
    public static function of(Content $content, array $answers): array
    {
        $found = [];
        foreach ($content->pieces() as $at => $piece) {
            $found[$piece->id] = array_values(array_unique(self::piece($piece, $answers[$at]), SORT_REGULAR));
        }

        return $found;
    }

    /** @return list<array{string, string}> */
    private static function piece(Piece $piece, PieceView $answer): array
    {
        return [
            ...array_map(fn (ScorecardRow $row): array => [$row->code, $row->unit], $answer->rows ?? []),
            ...($answer->course === null ? [] : [[$answer->course->code, $answer->unit]]),
            ...($answer->split === null && $answer->cases === null ? [] : [[$piece->kpis[0], $answer->unit]]),
            ...array_map(fn (ExceptionItem $item): array => [$item->code, $item->unit], $answer->exceptions ?? []),
            ...array_map(fn (ActionView $action): array => [$action->code, $action->unit], $answer->actions ?? []),
            ...($answer->drivers === null ? [] : [[$piece->kpis[0], $answer->unit], ...array_map(fn (DriverLine $line): array => [$line->kpi->code, $line->kpi->unit], $answer->drivers)]),
            ...array_map(fn (MapRegion $region): array => [$piece->kpis[0], $region->unit], $answer->regions ?? []),
            ...array_map(fn (TextPart $part): array => [$part->code, $part->unit], array_values(array_filter($answer->text ?? [], fn (TextPart $part): bool => $part->code !== ''))),
            ...self::matrix($answer),
            ...array_merge(...array_map(fn (CompareKpi $kpi): array => array_map(fn (CompareUnit $unit): array => [$kpi->code, $unit->code], $answer->comparison->units ?? []), $answer->comparison->kpis ?? []), ...[[]]),
            // What is gathered from all that is below a unit says how many there are.
            ...($piece->kind === PieceKind::Exceptions || $piece->kind === PieceKind::Actions ? [['', $answer->unit]] : []),
        ];
    }

    /** @return list<array{string, string}> */
    private static function matrix(PieceView $answer): array
    {
        $matrix = $answer->matrix;

        return match ($matrix?->crossing) {
            null => [],
            'kpis-months' => array_map(fn (MatrixLine $row): array => [$row->key, $answer->unit], $matrix->rows),
            'units-months' => array_map(fn (MatrixLine $row): array => [$matrix->kpi, $row->key], $matrix->rows),
            default => array_map(fn (MatrixLine $row): array => ['', $row->key], $matrix->rows),
        };
    }
}
