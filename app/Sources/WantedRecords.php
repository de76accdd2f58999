<?php

declare(strict_types=1);

namespace App\Sources;

/**
 * Which of the records behind a figure, and in what order.
 */
final readonly class WantedRecords
{
    /** @param  positive-int  $page */
    public function __construct(public string $sort = '', public bool $isDown = false, public string $search = '', public int $page = 1) {}
}
