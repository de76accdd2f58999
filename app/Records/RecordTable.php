<?php

declare(strict_types=1);

namespace App\Records;

/**
 * Where the records of a set are kept.
 */
final readonly class RecordTable
{
    /** @param  array<string, string>  $columns  by field, of its type: text, numeric, date, timestamptz, boolean */
    public function __construct(public string $name, public array $columns) {}
}
