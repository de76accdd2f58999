<?php

declare(strict_types=1);

namespace App\Review;

/**
 * An action as it was written.
 */
final readonly class ActionDraft
{
    /**
     * @param  string  $due  a day, 2026-09-30
     * @param  string  $state  `open`, `done` or `dropped`
     * @param  string  $outcome  what came of it, or why it was dropped
     * @param  int  $version  the version that was seen; 0 for a new one
     */
    public function __construct(
        public string $what,
        public string $who,
        public string $due,
        public string $state,
        public string $outcome,
        public int $version,
    ) {}
}
