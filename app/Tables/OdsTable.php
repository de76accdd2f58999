<?php

declare(strict_types=1);

namespace App\Tables;

use Brick\Math\BigDecimal;

/**
 * A sheet of an OpenDocument spreadsheet (ISO/IEC 26300).
 */
final class OdsTable extends Table
{
    public function __construct(private readonly string $path, private readonly string $sheet, Bounds $bounds)
    {
        parent::__construct($bounds);
    }

    public function rows(): iterable
    {
        $xml = new XmlStream($this->path, 'content.xml', $this->bounds);
        do {
            if ($xml->next('table') === null) {
                throw new BadTable('The spreadsheet has no sheet that can be read.');
            }
        } while ($this->sheet !== '' && $xml->attribute('table:name') !== $this->sheet);
        $sheet = $xml->depth();
        $line = 0;
        while ($xml->read() && $xml->depth() > $sheet) {
            if (! $xml->isStart() || $xml->name() !== 'table-row') {
                continue;
            }
            $repeated = max(1, (int) $xml->attribute('table:number-rows-repeated'));
            $row = $xml->isEmpty() ? [] : $this->row($xml, $line + 1);
            if ($row === []) {
                $line += $repeated;

                continue;
            }
            for ($copy = 0; $copy < $repeated; $copy++) {
                $line++;
                $this->bounds->row();
                yield $line => $row;
            }
        }
    }

    public function sheets(): array
    {
        $names = [];
        $xml = new XmlStream($this->path, 'content.xml', $this->bounds);
        while ($xml->next('table') !== null) {
            $names[] = $xml->attribute('table:name') ?? '';
        }

        return $names;
    }

    /** @return list<string|NumberCell> */
    private function row(XmlStream $xml, int $line): array
    {
        $row = [];
        $column = 0;
        $depth = $xml->depth();
        while ($xml->read() && $xml->depth() > $depth) {
            if (! $xml->isStart() || ($xml->name() !== 'table-cell' && $xml->name() !== 'covered-table-cell') || $xml->depth() !== $depth + 1) {
                continue;
            }
            $repeated = max(1, (int) $xml->attribute('table:number-columns-repeated'));
            $cell = $this->cell($xml);
            for ($copy = 0; $cell !== '' && $copy < $repeated; $copy++) {
                Bounds::column($line, $column + $copy + 1);
                for ($gap = count($row); $gap < $column + $copy; $gap++) {
                    $row[] = '';
                }
                $row[] = $cell;
            }
            $column += $repeated;
        }

        return $row;
    }

    private function cell(XmlStream $xml): string|NumberCell
    {
        $type = $xml->attribute('office:value-type');
        $value = $xml->attribute('office:value') ?? '';
        if (in_array($type, ['float', 'currency', 'percentage'], true) && is_numeric($value)) {
            $exact = BigDecimal::of(sprintf('%.15g', (float) $value));

            return new NumberCell((string) ($type === 'percentage' ? $exact->multipliedBy(100) : $exact)->stripTrailingZeros());
        }
        if ($type === 'date') {
            return substr((string) $xml->attribute('office:date-value'), 0, 10);
        }
        if ($type === null || $xml->isEmpty()) {
            return '';
        }
        $paragraphs = [];
        $depth = $xml->depth();
        while ($xml->read() && $xml->depth() > $depth) {
            if ($xml->isStart() && $xml->name() === 'p' && $xml->depth() === $depth + 1) {
                $paragraphs[] = $xml->text();
                Bounds::cell(array_sum(array_map(strlen(...), $paragraphs)));
            }
        }

        return implode("\n", $paragraphs);
    }
}
