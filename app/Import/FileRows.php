<?php

declare(strict_types=1);

namespace App\Import;

use App\Tables\NumberCell;
use App\Tables\Table;

/**
 * Takes the rows of a table apart into cells that each say one thing, whether months stand across or down.
 */
final readonly class FileRows
{
    private const LAYERS = [
        'actual' => 'actual', 'actuals' => 'actual', '' => 'actual', 'records' => 'actual', 'target' => 'target', 'targets' => 'target', 'plan' => 'target',
        'ist' => 'actual', 'ziel' => 'target', 'soll' => 'target', 'réel' => 'actual', 'réalisé' => 'actual', 'objectif' => 'target', 'cible' => 'target', 'werkelijk' => 'actual', 'doel' => 'target',
        'low' => 'low', 'lower' => 'low', 'high' => 'high', 'upper' => 'high', 'note' => 'note', 'notes' => 'note',
    ];

    /**
     * @param  int  $head  the line of the heads; what stands above it are titles
     * @return iterable<int, list<FileCell>> by line
     */
    public function cells(Table $table, Mapping $mapping, int $head): iterable
    {
        foreach ($table->rows() as $line => $row) {
            if ($line <= $head) {
                continue;
            }
            yield $line => $mapping->isWide() ? $this->wide($line, $row, $mapping) : $this->long($line, $row, $mapping);
        }
    }

    /**
     * @param  list<string|NumberCell>  $row
     * @return list<FileCell>
     */
    private function long(int $line, array $row, Mapping $mapping): array
    {
        $at = fn (string $role): string|NumberCell => $mapping->column($role) === null ? '' : $row[$mapping->column($role)] ?? '';
        $text = fn (string $role): string => self::text($at($role));
        $note = $text('note');
        $cells = [];
        foreach (['actual', 'target'] as $layer) {
            if (self::text($at($layer)) !== '') {
                $cells[] = new FileCell($line, self::letters((int) $mapping->column($layer)), $text('kpi'), $text('unit'), $text('period'), $layer, $at($layer), null, $note === '' ? null : $note);
            }
        }
        if ($text('low') !== '' || $text('high') !== '') {
            $cells[] = new FileCell($line, self::letters((int) $mapping->column('low')), $text('kpi'), $text('unit'), $text('period'), 'low', $at('low'), $at('high'));
        }
        if ($note !== '') {
            $cells[] = new FileCell($line, self::letters((int) $mapping->column('note')), $text('kpi'), $text('unit'), $text('period'), 'note', $note);
        }

        return $cells;
    }

    /**
     * @param  list<string|NumberCell>  $row
     * @return list<FileCell>
     */
    private function wide(int $line, array $row, Mapping $mapping): array
    {
        $text = fn (string $role): string => $mapping->column($role) === null ? '' : self::text($row[$mapping->column($role)] ?? '');
        $typed = mb_strtolower($text('layer'));
        $layer = self::LAYERS[$typed] ?? $typed;
        $cells = [];
        foreach ($mapping->periods as $column => $period) {
            $value = $row[$column] ?? '';
            if (self::text($value) !== '') {
                $cells[] = new FileCell($line, self::letters($column), $text('kpi'), $text('unit'), $period, $layer, $value);
            }
        }

        return $cells;
    }

    /** A text that was marked so that no spreadsheet runs it loses its mark again. */
    private static function text(string|NumberCell $cell): string
    {
        return $cell instanceof NumberCell ? $cell->text : trim(preg_replace('/\A\'(?=[=+\-@])/', '', $cell) ?? $cell);
    }

    private static function letters(int $column): string
    {
        $letters = '';
        for ($rest = $column + 1; $rest > 0; $rest = intdiv($rest - 1, 26)) {
            $letters = chr(65 + ($rest - 1) % 26).$letters;
        }

        return $letters;
    }
}
