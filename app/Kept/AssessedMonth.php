<?php

declare(strict_types=1);

namespace App\Kept;

use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Status\Status;

/**
 * How a KPI in a unit stands at a month, on each span.
 */
final readonly class AssessedMonth
{
    private const LETTERS = ['green' => 'g', 'amber' => 'a', 'red' => 'r', 'not-judged' => '-', 'no-data' => '.'];

    /**
     * @param  string  $statuses  a letter for each span
     * @param  int  $owed  readings of the month that people owe
     * @param  int  $arrived  those of them that are there
     */
    public function __construct(public string $statuses, public int $owed, public int $arrived) {}

    /** @param  array<string, Status>  $statuses  by span */
    public static function letters(array $statuses): string
    {
        return implode('', array_map(fn (Span $span): string => self::LETTERS[$statuses[$span->value]->value], Span::cases()));
    }

    public function status(Span $span): Status
    {
        return self::read($this->statuses[self::place($span)]);
    }

    /** Where the letter of a span stands. */
    public static function place(Span $span): int
    {
        return match ($span) {
            Span::Month => 0,
            Span::Quarter => 1,
            Span::YearToDate => 2,
            Span::Rolling12 => 3,
        };
    }

    public static function read(string $letter): Status
    {
        return match ($letter) {
            'g' => Status::Green,
            'a' => Status::Amber,
            'r' => Status::Red,
            '-' => Status::NotJudged,
            default => Status::NoData,
        };
    }
}
