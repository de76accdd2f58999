<?php

declare(strict_types=1);

namespace App\Tables;

use App\Models\User;

/**
 * One sheet of the workbook that holds an organisation: what it is for, what it holds, and how it is taken in again. Each
 * capability has those of what it keeps.
 */
interface BookSheet
{
    public function name(): string;

    /** What stands in it, for whoever fills it in. */
    public function explanation(): string;

    /** @return non-empty-list<string> */
    public function head(): array;

    /** @return list<int> the columns that hold figures */
    public function figures(): array;

    /** @return iterable<list<string>> without the head; figures have a plain point */
    public function rows(User $user): iterable;

    /**
     * Inside of a transaction: whether anything of it stays is decided when all sheets are taken.
     *
     * @param  array<int, array<string, string|NumberCell>>  $rows  by line, their cells by the head of the column
     */
    public function take(array $rows, User $user): SheetOutcome;
}
