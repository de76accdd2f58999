<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Support\Installation;
use Illuminate\Console\Command;

final class BeginOwn extends Command
{
    protected $signature = 'begin';

    protected $description = 'Print a link that works once, with which somebody begins an organisation on an empty installation';

    public function handle(Installation $installation): int
    {
        $secret = $installation->open();
        if ($secret === null) {
            $this->output->getErrorStyle()->writeln('There is an organisation here already. Another one needs a place of its own: bin/start --empty --name NAME.');

            return self::FAILURE;
        }
        $this->line(rtrim(config()->string('app.url'), '/')."/begin#{$secret}");

        return self::SUCCESS;
    }
}
