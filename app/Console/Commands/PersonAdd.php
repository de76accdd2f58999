<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Role;
use App\Models\Unit;
use App\People\SavePerson;
use App\People\Views\EntryLinkView;
use App\People\WantedPerson;
use Illuminate\Console\Command;
use Illuminate\Validation\ValidationException;

final class PersonAdd extends Command
{
    protected $signature = 'person:add {email} {name} {role} {unit? : code; the whole organisation when not given}';

    protected $description = 'Make an account and print the link with which the person chooses a password';

    public function handle(SavePerson $save): int
    {
        $role = Role::tryFrom(strval($this->argument('role')));
        $unit = $this->argument('unit') ?? Unit::query()->whereNull('parent_id')->value('code');
        if ($role === null || ! is_string($unit) || Unit::query()->where('code', $unit)->doesntExist()) {
            $this->output->getErrorStyle()->writeln($role === null ? 'A role is one of: '.implode(', ', array_column(Role::cases(), 'value')).'.' : 'There is no such unit.');

            return self::FAILURE;
        }
        try {
            $secret = $save->invite(new WantedPerson(mb_strtolower(strval($this->argument('email'))), strval($this->argument('name')), [[$role, $unit]]));
        } catch (ValidationException $refused) {
            $this->output->getErrorStyle()->writeln($refused->getMessage());

            return self::FAILURE;
        }
        $this->line((new EntryLinkView($secret))->link);

        return self::SUCCESS;
    }
}
