<?php

declare(strict_types=1);

namespace App\Sources;

use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Database\Connection;

/** Sets a worker to KPIs that are to be counted again: because of a large load, or of a change of the tree, a code or the calendar. */
final readonly class CountedKpis
{
    public function __construct(private Connection $database, private Dispatcher $jobs) {}

    public function due(): void
    {
        if ($this->database->table('counted_kpis')->where('is_due', true)->exists()) {
            $this->jobs->dispatch(new CountJob);
        }
    }
}
