<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Calendar\Period;

/**
 * What was agreed about a KPI in a unit, after the period that caused it. The rules do not look at it.
 */
final readonly class ActionEntry
{
    /**
     * @param  string  $due  the day by which it is to be done
     * @param  string  $state  `open`, `done` or `dropped`
     * @param  string  $outcome  what came of it, or why it was dropped
     * @param  string|null  $ended  the day on which it was done or dropped; null while it is open
     * @param  string|null  $by  e-mail address of who wrote it
     */
    public function __construct(
        public Period $period,
        public string $what,
        public string $who,
        public string $due,
        public string $state,
        public string $outcome,
        public ?string $ended,
        public ?string $by,
    ) {}
}
