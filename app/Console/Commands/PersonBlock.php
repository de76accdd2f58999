<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\FindsPerson;
use App\People\SavePerson;
use Illuminate\Console\Command;
use Illuminate\Validation\ValidationException;

final class PersonBlock extends Command
{
    use FindsPerson;

    protected $signature = 'person:block {email} {--again : let them in again}';

    protected $description = 'Let somebody in no longer, and end what they have open; or let them in again';

    public function handle(SavePerson $save): int
    {
        $user = $this->person();
        if ($user === null) {
            return self::FAILURE;
        }
        try {
            $save->block($user, $this->option('again') !== true);
        } catch (ValidationException $refused) {
            $this->output->getErrorStyle()->writeln($refused->getMessage());

            return self::FAILURE;
        }

        return self::SUCCESS;
    }
}
