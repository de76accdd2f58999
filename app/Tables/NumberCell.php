<?php

declare(strict_types=1);

namespace App\Tables;

/**
 * A cell that a spreadsheet keeps as a number: a plain point, whatever the reader's number setting.
 */
final readonly class NumberCell
{
    public function __construct(public string $text) {}
}
