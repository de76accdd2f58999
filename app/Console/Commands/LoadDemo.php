<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Unit;
use App\Support\Installation;
use App\Support\Trail;
use Database\Ostermere\Loader;
use Database\Ostermere\PublishPages;
use Illuminate\Console\Command;

final class LoadDemo extends Command
{
    /** Ostermere's financial year begins in April. */
    private const YEAR_START = 4;

    protected $signature = 'demo:load';

    protected $description = 'Load Ostermere Water, the demonstration, if the database is empty';

    public function handle(Loader $loader, PublishPages $publish, Trail $trail, Installation $installation): int
    {
        if (Unit::query()->exists()) {
            $this->line('The database holds data already; it stays as it is.');

            return self::SUCCESS;
        }
        if ($installation->isOwn()) {
            $this->line('This place is for an organisation of somebody\'s own; it stays empty until that is begun.');

            return self::SUCCESS;
        }
        $trail->silently(function () use ($installation, $loader): void {
            $installation->become(true, self::YEAR_START, 'UTC');
            $loader->load();
        });
        $trail->silently(fn () => $publish());
        $this->line('Ostermere Water is loaded.');

        return self::SUCCESS;
    }
}
