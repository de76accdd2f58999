<?php

declare(strict_types=1);

namespace App\Tables;

use Brick\Math\BigDecimal;

/**
 * The first sheet of an OpenDocument spreadsheet (ISO/IEC 26300).
 */
final class OdsTable extends Table
{
    public function __construct(private readonly string $path) {}

    public function rows(): iterable
    {
        $xml = new XmlStream($this->path, 'content.xml');
        if ($xml->next('table') === null) {
            throw new BadTable('The spreadsheet has no sheet that can be read.');
        }
        $sheet = $xml->depth();
        $line = 0;
        $count = 0;
        while ($xml->read() && $xml->depth() > $sheet) {
            if (! $xml->isStart() || $xml->name() !== 'table-row') {
                continue;
            }
            $repeated = max(1, (int) $xml->attribute('table:number-rows-repeated'));
            $row = $xml->isEmpty() ? [] : $this->row($xml);
            if ($row === []) {
                $line += $repeated;

                continue;
            }
            for ($copy = 0; $copy < $repeated; $copy++) {
                $line++;
                if (++$count > self::MOST_ROWS + 1) {
                    throw new BadTable('The sheet has more than '.number_format(self::MOST_ROWS).' rows. Split it and send the parts.');
                }
                yield $line => $row;
            }
        }
    }

    public function kind(): string
    {
        return 'ODS';
    }

    /** @return list<string|NumberCell> */
    private function row(XmlStream $xml): array
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
            for ($copy = 0; $cell !== '' && $copy < $repeated && $column + $copy < self::MOST_COLUMNS; $copy++) {
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
            }
        }

        return implode("\n", $paragraphs);
    }
}
