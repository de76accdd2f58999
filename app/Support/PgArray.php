<?php

declare(strict_types=1);

namespace App\Support;

/**
 * Lists as PostgreSQL reads them, so that thousands of rows go in one statement with a handful of parameters.
 */
final class PgArray
{
    /** @param  list<int|string|null>  $items */
    public static function of(array $items): string
    {
        return '{'.implode(',', array_map(
            fn (int|string|null $item): string => $item === null ? 'NULL' : '"'.addcslashes((string) $item, '"\\').'"',
            $items,
        )).'}';
    }
}
