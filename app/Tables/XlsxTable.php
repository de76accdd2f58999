<?php

declare(strict_types=1);

namespace App\Tables;

use Brick\Math\BigDecimal;
use Carbon\CarbonImmutable;
use SimpleXMLElement;
use ZipArchive;

/**
 * A sheet of a workbook in Office Open XML (ISO/IEC 29500).
 */
final class XlsxTable extends Table
{
    /** Built-in number formats that show a date (18.8.30 of the standard). */
    private const DATES = [14, 15, 16, 17, 22];

    private const PERCENTS = [9, 10];

    private readonly string $sheet;

    /** @var array<int, 'date'|'percent'> by style */
    private array $styles = [];

    private readonly bool $since1904;

    /** @var list<string> */
    private array $names = [];

    public function __construct(private readonly string $path, ZipArchive $archive, string $sheet, Bounds $bounds)
    {
        parent::__construct($bounds);
        $book = self::xml($archive, 'xl/workbook.xml');
        $this->since1904 = in_array((string) ($book->workbookPr['date1904'] ?? ''), ['1', 'true'], true);
        $relation = '';
        foreach ($book->sheets->sheet ?? [] as $each) {
            $this->names[] = $name = (string) $each['name'];
            if ($relation === '' && ($sheet === '' || $sheet === $name)) {
                $relation = (string) ($each->attributes('http://schemas.openxmlformats.org/officeDocument/2006/relationships')['id'] ?? '');
            }
        }
        $target = '';
        foreach (self::xml($archive, 'xl/_rels/workbook.xml.rels')->Relationship as $link) {
            $target = (string) $link['Id'] === $relation ? (string) $link['Target'] : $target;
        }
        $this->sheet = str_starts_with($target, '/') ? ltrim($target, '/') : "xl/{$target}";
        if ($target === '' || $archive->locateName($this->sheet) === false) {
            throw new BadTable('The workbook has no sheet that can be read.');
        }
        if ($archive->locateName('xl/styles.xml') !== false) {
            $this->readStyles(self::xml($archive, 'xl/styles.xml'));
        }
    }

    public function rows(): iterable
    {
        $texts = $this->texts();
        $xml = new XmlStream($this->path, $this->sheet, $this->bounds);
        $line = 0;
        while ($xml->next('row') !== null) {
            $line = (int) ($xml->attribute('r') ?? $line + 1);
            $row = $xml->isEmpty() ? [] : $this->row($xml, $texts, $line);
            if ($row === []) {
                continue;
            }
            $this->bounds->row();
            yield $line => $row;
        }
    }

    public function sheets(): array
    {
        return $this->names;
    }

    /**
     * @param  list<string>  $texts
     * @return list<string|NumberCell>
     */
    private function row(XmlStream $xml, array $texts, int $line): array
    {
        $row = [];
        $depth = $xml->depth();
        $column = 0;
        while ($xml->read() && $xml->depth() > $depth) {
            if (! $xml->isStart() || $xml->name() !== 'c') {
                continue;
            }
            $at = self::column($xml->attribute('r')) ?? $column;
            $column = $at + 1;
            $cell = $xml->isEmpty() ? '' : $this->cell($xml, $texts);
            if ($cell !== '') {
                Bounds::column($line, $at + 1);
                for ($gap = count($row); $gap < $at; $gap++) {
                    $row[] = '';
                }
                $row[] = $cell;
            }
        }

        return $row;
    }

    /** @param  list<string>  $texts */
    private function cell(XmlStream $xml, array $texts): string|NumberCell
    {
        $type = $xml->attribute('t') ?? 'n';
        $style = (int) $xml->attribute('s');
        $depth = $xml->depth();
        $value = '';
        while ($xml->read() && $xml->depth() > $depth) {
            if ($xml->isStart() && ($xml->name() === 'v' || $xml->name() === 't')) {
                $value .= $xml->text();
                Bounds::cell(strlen($value));
            }
        }

        return match ($type) {
            's' => $texts[(int) $value] ?? '',
            'b' => $value === '1' ? 'TRUE' : 'FALSE',
            'n' => $value === '' ? '' : $this->number($value, $this->styles[$style] ?? null),
            default => $value,
        };
    }

    private function number(string $value, ?string $style): string|NumberCell
    {
        if (! is_numeric($value)) {
            return $value;
        }
        // A spreadsheet keeps 15 digits; what stands behind them is the noise of its floats.
        $exact = BigDecimal::of(sprintf('%.15g', (float) $value));

        return match ($style) {
            'date' => CarbonImmutable::create($this->since1904 ? 1904 : 1899, $this->since1904 ? 1 : 12, $this->since1904 ? 1 : 30)?->addDays((int) $value)->toDateString() ?? '',
            'percent' => new NumberCell((string) $exact->multipliedBy(100)->stripTrailingZeros()),
            default => new NumberCell((string) $exact->stripTrailingZeros()),
        };
    }

    /** @return list<string> the texts that cells refer to */
    private function texts(): array
    {
        $archive = new ZipArchive;
        $isThere = $archive->open($this->path, ZipArchive::RDONLY) === true && $archive->locateName('xl/sharedStrings.xml') !== false;
        $archive->close();
        if (! $isThere) {
            return [];
        }
        $texts = [];
        $bytes = 0;
        $xml = new XmlStream($this->path, 'xl/sharedStrings.xml', $this->bounds);
        while ($xml->next('si') !== null) {
            $text = '';
            $depth = $xml->depth();
            $isPhonetic = false;
            while (! $xml->isEmpty() && $xml->read() && $xml->depth() > $depth) {
                $isPhonetic = $xml->name() === 'rPh' ? $xml->isStart() : $isPhonetic;
                if ($xml->isStart() && $xml->name() === 't' && ! $isPhonetic) {
                    $text .= $xml->text();
                    Bounds::cell(strlen($text));
                }
            }
            $texts[] = $text;
            $bytes += strlen($text);
            if ($bytes > Bounds::MOST_TEXT_BYTES || count($texts) > Bounds::MOST_TEXTS) {
                throw new BadTable('The workbook holds more text than can be read here. Split it and send the parts.');
            }
        }

        return $texts;
    }

    private function readStyles(SimpleXMLElement $styles): void
    {
        $formats = [];
        foreach ($styles->numFmts->numFmt ?? [] as $format) {
            $code = preg_replace('/"[^"]*"|\\\\.|\[[^\]]*\]/', '', (string) $format['formatCode']) ?? '';
            $formats[(int) $format['numFmtId']] = match (true) {
                str_contains($code, '%') => 'percent',
                preg_match('/[dmy]/i', $code) === 1 && preg_match('/[0#]/', $code) !== 1 => 'date',
                default => null,
            };
        }
        $index = 0;
        foreach ($styles->cellXfs->xf ?? [] as $style) {
            $id = (int) $style['numFmtId'];
            $meaning = in_array($id, self::DATES, true) ? 'date' : (in_array($id, self::PERCENTS, true) ? 'percent' : $formats[$id] ?? null);
            if ($meaning !== null) {
                $this->styles[$index] = $meaning;
            }
            $index++;
        }
    }

    private static function column(?string $reference): ?int
    {
        if ($reference === null || preg_match('/\A[A-Z]{1,3}/', $reference, $letters) !== 1) {
            return null;
        }
        $column = 0;
        foreach (str_split($letters[0]) as $letter) {
            $column = $column * 26 + ord($letter) - 64;
        }

        return $column - 1;
    }

    private static function xml(ZipArchive $archive, string $entry): SimpleXMLElement
    {
        $text = Bounds::part($archive, $entry);
        $xml = $text === null || str_contains($text, '<!DOCTYPE') ? false : simplexml_load_string($text, SimpleXMLElement::class, LIBXML_NONET | LIBXML_NOERROR | LIBXML_NOWARNING);

        return $xml === false ? throw new BadTable('The file is damaged: a part of it cannot be read.') : $xml;
    }
}
