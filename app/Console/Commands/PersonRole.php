<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\FindsPerson;
use App\Models\Grant;
use App\Models\Role;
use App\Models\Unit;
use App\People\SavePerson;
use App\People\WantedPerson;
use Illuminate\Console\Command;
use Illuminate\Validation\ValidationException;

final class PersonRole extends Command
{
    use FindsPerson;

    protected $signature = 'person:role {email} {role} {unit? : code; the whole organisation when not given} {--take : take the role away}';

    protected $description = 'Give somebody a role for a part of the tree, or take it away';

    public function handle(SavePerson $save): int
    {
        $user = $this->person();
        $role = Role::tryFrom(strval($this->argument('role')));
        $unit = $this->argument('unit') ?? Unit::query()->whereNull('parent_id')->value('code');
        if ($user === null || $role === null || ! is_string($unit) || Unit::query()->where('code', $unit)->doesntExist()) {
            $this->output->getErrorStyle()->writeln($role === null ? 'A role is one of: '.implode(', ', array_column(Role::cases(), 'value')).'.' : 'There is no such unit.');

            return self::FAILURE;
        }
        $held = array_values($user->grants()->with('unit')->get()->map(fn (Grant $grant): array => [$grant->role, $grant->unit->code])->filter(fn (array $each): bool => $each !== [$role, $unit])->all());
        $wanted = $this->option('take') === true ? $held : [...$held, [$role, $unit]];
        try {
            $save->change($user, new WantedPerson($user->email, $user->name, $wanted === [] ? [[Role::Reader, $unit]] : $wanted));
        } catch (ValidationException $refused) {
            $this->output->getErrorStyle()->writeln($refused->getMessage());

            return self::FAILURE;
        }

        return self::SUCCESS;
    }
}
