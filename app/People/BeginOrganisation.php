<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;
use App\Models\User;
use App\Support\Installation;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Begins an organisation of one's own on an installation that has none: with the link that the installation gave out, which
 * works once. Whoever comes with it first has it; the others are told.
 */
final readonly class BeginOrganisation
{
    public function __construct(private Connection $database, private Installation $installation, private Trail $trail) {}

    /** @throws ValidationException where the link does not work, or no longer */
    public function __invoke(Beginning $beginning): User
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($beginning): User {
            if (! $this->installation->begin($beginning->link, $beginning->yearStartMonth, $beginning->timeZone, $beginning->currency, $beginning->locale)) {
                throw ValidationException::withMessages(['link' => 'This link does not work any longer. Ask for a new one where Kybernet was installed: bin/kybernet begin.']);
            }
            $unit = $this->database->table('units')->insertGetId(['code' => $beginning->code, 'name' => $beginning->organisation, 'kind' => 'organisation', 'parent_id' => null, 'position' => 0]);

            $user = User::query()->forceCreate(['name' => $beginning->name, 'email' => $beginning->email, 'password' => $beginning->password, 'joined_at' => now(), 'locale' => $beginning->locale]);
            $user->grants()->createMany([['role' => Role::Analyst, 'unit_id' => $unit], ['role' => Role::Administrator, 'unit_id' => $unit]]);

            return $user;
        });
    }
}
