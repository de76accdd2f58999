<?php

declare(strict_types=1);

namespace App\Sources;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Asks one source for its records. */
final class AskJob implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 900;

    public function __construct(public int $set) {}

    public function handle(AskSources $sources): void
    {
        $sources->ask($this->set);
    }
}
