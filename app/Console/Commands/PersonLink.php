<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\FindsPerson;
use App\People\EntryLinks;
use App\People\SecondFactor;
use App\People\Views\EntryLinkView;
use Illuminate\Console\Command;

final class PersonLink extends Command
{
    use FindsPerson;

    protected $signature = 'person:link {email} {--no-code : take their second factor off as well}';

    protected $description = 'Print a link that works once, with which somebody chooses a new password and is signed in';

    public function handle(EntryLinks $links, SecondFactor $factor): int
    {
        $user = $this->person();
        if ($user === null) {
            return self::FAILURE;
        }
        if ($this->option('no-code') === true) {
            $factor->takeOff($user);
        }
        $this->line((new EntryLinkView($links->make($user)))->link);

        return self::SUCCESS;
    }
}
