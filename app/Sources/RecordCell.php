<?php

declare(strict_types=1);

namespace App\Sources;

use App\Tables\NumberCell;
use InvalidArgumentException;
use Kybernet\Core\Calendar\CivilDay;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Zone;

/**
 * Cells of a file as the values of a record, written as the core writes them. How dates and numbers stand in a column
 * is known beforehand (`form`): `day-first`, `month-first` or `comma`; blank is 2026-08-31 and 1234.5.
 */
final class RecordCell
{
    public const FORMS = ['', 'day-first', 'month-first', 'comma'];

    private const YES = ['true', 'yes', 'y', 't', '1', 'ja', 'oui', 'x'];

    private const NO = ['false', 'no', 'n', 'f', '0', 'nein', 'nee', 'non'];

    private const MONTHS = ['jan' => 1, 'feb' => 2, 'mar' => 3, 'apr' => 4, 'may' => 5, 'jun' => 6, 'jul' => 7, 'aug' => 8, 'sep' => 9, 'oct' => 10, 'nov' => 11, 'dec' => 12];

    /** A text longer than this is no value of a record. */
    private const MOST_CHARACTERS = 4_000;

    /** @var array<string, string|null> dates that were read before: of a million records there are few hundred */
    private array $days = [];

    /** @var array<string, string|null> */
    private array $answers = [];

    public function __construct(private readonly Zone $zone) {}

    /**
     * @return string|null null where nothing is there
     *
     * @throws InvalidArgumentException with what is wrong
     */
    public function read(FieldType $type, string $form, string|NumberCell $cell): ?string
    {
        if ($cell instanceof NumberCell) {
            return $this->number($type, $cell->text);
        }

        return match ($type) {
            FieldType::Text => $this->text($cell),
            FieldType::Number => self::figure($cell, $form),
            FieldType::Date => $this->days["{$form} {$cell}"] ??= $this->day($cell, $form),
            FieldType::Time => $this->time($cell, $form),
            FieldType::YesNo => $this->answers[$cell] ??= self::yesNo($cell),
        };
    }

    private function number(FieldType $type, string $text): ?string
    {
        return match ($type) {
            FieldType::Number => self::figure($text, ''),
            FieldType::Text => $text,
            FieldType::YesNo => self::yesNo($text),
            default => throw new InvalidArgumentException("'{$text}' is a number, not a date."),
        };
    }

    private function text(string $cell): ?string
    {
        // Nearly all begin and end with a plain letter or digit: there is nothing to trim.
        $length = strlen($cell);
        if ($length > 0 && $length < self::MOST_CHARACTERS && ctype_alnum($cell[0]) && ctype_alnum($cell[$length - 1]) && ! str_contains($cell, "\0")) {
            return $cell;
        }
        $text = RecordSet::value(FieldType::Text, $cell);
        if (is_string($text) && mb_strlen($text) > self::MOST_CHARACTERS) {
            throw new InvalidArgumentException('The text is longer than '.number_format(self::MOST_CHARACTERS).' characters.');
        }

        return is_string($text) ? str_replace("\0", '', $text) : null;
    }

    private static function figure(string $cell, string $form): ?string
    {
        // Nearly all are written plainly.
        if ($form === '' && preg_match('/\A-?(?:0|[1-9]\d{0,17})(?:\.\d{1,8})?\z/', $cell) === 1) {
            return $cell;
        }
        $text = RecordSet::trimmed($cell);
        $text = $form === 'comma' ? str_replace(["\u{00A0}", "\u{202F}", ' ', '.', "'"], '', $text) : str_replace(["\u{00A0}", "\u{202F}", ' ', ',', "'"], '', $text);
        try {
            $value = RecordSet::value(FieldType::Number, $form === 'comma' ? str_replace(',', '.', $text) : $text);
        } catch (InvalidArgumentException) {
            throw new InvalidArgumentException("'{$cell}' is not a number such as ".($form === 'comma' ? '1234,5.' : '1234.5.'));
        }

        return is_string($value) ? $value : null;
    }

    private function day(string $cell, string $form): ?string
    {
        $text = RecordSet::trimmed($cell);
        if ($text === '') {
            return null;
        }
        // A spreadsheet keeps a date as the first instant of its day.
        if (preg_match('/\A(\d{4}-\d\d-\d\d)(?:[T ]00:00(?::00(?:\.0+)?)?)?\z/', $text, $match) === 1) {
            return Day::parse($match[1])->key();
        }
        if (preg_match('/\A(\d{1,2})[.\/-](\d{1,2})[.\/-](\d{4})\z/', $text, $match) === 1 && $form !== '') {
            return $form === 'month-first' ? self::date((int) $match[3], (int) $match[1], (int) $match[2], $text) : self::date((int) $match[3], (int) $match[2], (int) $match[1], $text);
        }
        if (preg_match('/\A(\d{1,2})[ -]([A-Za-z]{3})[a-z]*[ -](\d{4})\z/', $text, $match) === 1) {
            return self::date((int) $match[3], self::MONTHS[strtolower($match[2])] ?? 0, (int) $match[1], $text);
        }

        throw new InvalidArgumentException("'{$text}' is not a date such as ".match ($form) {
            'day-first' => '31/08/2026.', 'month-first' => '08/31/2026.', default => '2026-08-31.',
        });
    }

    private static function date(int $year, int $month, int $day, string $text): string
    {
        return checkdate($month, $day, $year) ? (new Day(CivilDay::number($year, $month, $day)))->key() : throw new InvalidArgumentException("There is no day '{$text}'.");
    }

    private function time(string $cell, string $form): ?string
    {
        $text = RecordSet::trimmed($cell);
        if ($text === '') {
            return null;
        }
        if (preg_match('/\A(\S+)[T ](\d{1,2}):(\d\d)(?::(\d\d)(\.\d{1,6})?)?\s*(Z|[+-]\d\d:?\d\d)?\z/', str_contains($text, 'T') && ! str_contains($text, ' ') ? preg_replace('/T/', ' ', $text, 1) ?? $text : $text, $match) !== 1) {
            throw new InvalidArgumentException("'{$text}' is not a time such as 2026-08-31 23:30, or 2026-08-31T23:30:00+01:00.");
        }
        $day = $this->days["{$form} {$match[1]}"] ??= $this->day($match[1], $form);
        $clock = sprintf('%02d:%s:%s%s', (int) $match[2], $match[3], ($match[4] ?? '') === '' ? '00' : $match[4], $match[5] ?? '');
        if (($match[6] ?? '') !== '') {
            return Instant::parse("{$day}T{$clock}".(preg_match('/\A[+-]\d{4}\z/', $match[6]) === 1 ? substr($match[6], 0, 3).':'.substr($match[6], 3) : $match[6]))->key();
        }

        // Without a zone it is the time of the organisation's clocks.
        return $this->zone->local(Instant::parse("{$day}T{$clock}Z"))->key();
    }

    private static function yesNo(string $cell): ?string
    {
        $text = mb_strtolower(RecordSet::trimmed($cell));

        return match (true) {
            $text === '' => null,
            in_array($text, self::YES, true) => 'true',
            in_array($text, self::NO, true) => 'false',
            default => throw new InvalidArgumentException("'{$cell}' is neither yes nor no."),
        };
    }
}
