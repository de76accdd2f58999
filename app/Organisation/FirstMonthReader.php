<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Organisation\Views\FirstMonth;
use App\Support\Installation;
use App\Support\Month;
use Illuminate\Database\Connection;

/**
 * How far the first steps have come, by what is there: nothing is ticked off by hand.
 */
final readonly class FirstMonthReader
{
    public function __construct(private Connection $database, private Installation $installation) {}

    public function read(): FirstMonth
    {
        $row = (array) $this->database->selectOne(
            'SELECT (SELECT count(*) FROM units WHERE parent_id IS NOT NULL) AS units, (SELECT count(*) FROM users) AS people, (SELECT count(*) FROM kpis) AS kpis,
                (SELECT count(*) FROM readings WHERE actual IS NOT NULL AND period < ?) AS history, (SELECT max(period) FROM period_states) AS closed',
            [Month::date(Month::running())],
        );
        $count = fn (string $column): int => is_int($row[$column] ?? null) ? $row[$column] : 0;

        return new FirstMonth(
            $this->installation->currency(),
            $this->installation->timeZone(),
            $count('units'),
            $count('people'),
            $count('kpis'),
            $count('history'),
            is_string($row['closed'] ?? null) ? Month::ofDate($row['closed'])->key() : null,
        );
    }
}
