<?php

declare(strict_types=1);

namespace App\Import;

use InvalidArgumentException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * Periods as people write them in tables: `2026-08`, `Aug 2026`, `08/2026`, `1.8.2026`, `2026-08-31`, `2026-W34`,
 * `FY2026-Q2`, `Q2 2026/27`, `FY2026`, `2026/27`.
 */
final readonly class PeriodText
{
    /** By the first letters that tell them apart: English, German, French and Dutch. */
    private const MONTHS = [
        'janv' => 1, 'févr' => 2, 'fév' => 2, 'fevr' => 2, 'mär' => 3, 'mrz' => 3, 'mrt' => 3, 'maa' => 3, 'mars' => 3, 'avr' => 4, 'mai' => 5, 'mei' => 5, 'juin' => 6, 'juil' => 7, 'aoû' => 8, 'aou' => 8, 'sept' => 9, 'okt' => 10, 'déc' => 12, 'dez' => 12,
        'jan' => 1, 'feb' => 2, 'mar' => 3, 'apr' => 4, 'may' => 5, 'jun' => 6, 'jul' => 7, 'aug' => 8, 'sep' => 9, 'oct' => 10, 'nov' => 11, 'dec' => 12,
    ];

    /** @param  bool  $isMonthFirst  how the person writes a day: 8/31/2026 */
    public function __construct(private FinancialYear $year, private bool $isMonthFirst) {}

    public function isPeriod(string $text): bool
    {
        try {
            $this->read($text, Frequency::Month);

            return true;
        } catch (InvalidArgumentException) {
            return preg_match('/\A(?:FY\s?\d{4}(?:[- ]?Q[1-4])?|\d{4}-W\d{2}|Q[1-4] \d{4}(?:\/\d{2})?)\z/i', trim($text)) === 1;
        }
    }

    /**
     * The period of the frequency that the text names. A month or a day stands for the quarter or the year that ends
     * with it, unless `$isNamed`: then only a text that names the quarter or year itself will do.
     *
     * @throws InvalidArgumentException when it names none
     */
    public function read(string $text, Frequency $frequency, bool $isNamed = false): Period
    {
        $plain = preg_replace('/\A[\s\x{00A0}\']+|[\s\x{00A0}\']+\z/u', '', $text) ?? $text;
        $problem = new InvalidArgumentException("'{$plain}' is not a {$frequency->value} such as {$frequency->example()}.");
        if ($plain === '') {
            throw new InvalidArgumentException('The period is missing.');
        }
        if (preg_match('/\A(?:FY\s?)?(\d{4})(?:\/\d{2,4})?[- ]?Q([1-4])\z|\AQ([1-4])[- ](?:FY\s?)?(\d{4})(?:\/\d{2,4})?\z/i', $plain, $match) === 1) {
            [$of, $quarter] = isset($match[4]) ? [$match[4], $match[3]] : [$match[1], $match[2]];

            return $frequency === Frequency::Quarter ? Period::quarter((int) $of, (int) $quarter) : throw $problem;
        }
        if (preg_match('/\AFY\s?(\d{4})\z|\A(\d{4})\/\d{2,4}\z|\A(\d{4})\z/i', $plain, $match) === 1) {
            return $frequency === Frequency::Year ? Period::financialYear((int) end($match)) : throw $problem;
        }
        if (preg_match('/\A(\d{4})-?W(\d{1,2})\z|\AW(?:eek )?(\d{1,2})[ \/-](\d{4})\z/i', $plain, $match) === 1) {
            [$of, $week] = isset($match[4]) ? [$match[4], $match[3]] : [$match[1], $match[2]];

            return $frequency === Frequency::Week ? Period::week((int) $of, (int) $week) : throw $problem;
        }
        $month = $this->month($plain) ?? throw $problem;
        if ($frequency === Frequency::Month) {
            return $month;
        }
        if ($isNamed) {
            throw $problem;
        }
        $period = $frequency === Frequency::Week ? throw $problem : $this->year->latestEnded($frequency, $month);

        return $this->year->endMonth($period)->compareTo($month) === 0 ? $period : throw $problem;
    }

    private function month(string $text): ?Period
    {
        if (preg_match('/\A(\d{4})-(\d{1,2})(?:-\d{1,2})?(?:[T ].*)?\z/', $text, $match) === 1) {
            return self::of((int) $match[1], (int) $match[2]);
        }
        if (preg_match('/\A(\d{1,2})[.\/-](\d{4})\z/', $text, $match) === 1) {
            return self::of((int) $match[2], (int) $match[1]);
        }
        if (preg_match('/\A(\d{1,2})[.\/-](\d{1,2})[.\/-](\d{4})\z/', $text, $match) === 1) {
            return self::of((int) $match[3], (int) ($this->isMonthFirst && ! str_contains($text, '.') ? $match[1] : $match[2]));
        }
        if (preg_match('/\A(?:\d{1,2}[. -]{1,2})?(\p{L}{3,10})\.?[ \'\/-]*(\d{4}|\d{2})\z/u', $text, $match) === 1) {
            $name = mb_strtolower($match[1]);
            $number = self::MONTHS[mb_substr($name, 0, 4)] ?? self::MONTHS[mb_substr($name, 0, 3)] ?? null;

            return $number === null ? null : self::of((int) (strlen($match[2]) === 2 ? "20{$match[2]}" : $match[2]), $number);
        }

        return null;
    }

    private static function of(int $year, int $month): ?Period
    {
        return $month >= 1 && $month <= 12 && $year >= 1990 && $year <= 2100 ? Period::month($year, $month) : null;
    }
}
