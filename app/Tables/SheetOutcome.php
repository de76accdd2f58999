<?php

declare(strict_types=1);

namespace App\Tables;

/** What taking a sheet did, or would do. */
final class SheetOutcome
{
    public int $new = 0;

    public int $changed = 0;

    public int $same = 0;

    /** @var array<int, string> what is wrong, by line */
    public array $problems = [];

    /** @var array<string, string> links to hand over, by e-mail address */
    public array $links = [];

    public function count(string $what, int $line, string $problem): void
    {
        match ($what) {
            'new' => $this->new++,
            'changed' => $this->changed++,
            'same' => $this->same++,
            default => $this->problems[$line] = $problem,
        };
    }
}
