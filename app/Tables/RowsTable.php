<?php

declare(strict_types=1);

namespace App\Tables;

/** A table that was read already. */
final class RowsTable extends Table
{
    /** @param  array<int, list<string|NumberCell>>  $rows  by line */
    public function __construct(private readonly array $rows)
    {
        parent::__construct(new Bounds(self::LONG));
    }

    public function rows(): iterable
    {
        yield from $this->rows;
    }

    public function sheets(): array
    {
        return [];
    }
}
