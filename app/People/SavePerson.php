<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Grant;
use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Support\Installation;
use App\Support\Trail;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Invites people, changes what they come to do, blocks them and lets them in again. Somebody always stays who administers.
 */
final readonly class SavePerson
{
    public function __construct(private Connection $database, private EntryLinks $links, private OpenSessions $sessions, private Hasher $hasher, private Installation $installation, private Trail $trail) {}

    /** @return string the secret of the link to hand over */
    public function invite(WantedPerson $wanted): string
    {
        return $this->within(function () use ($wanted): string {
            if (User::query()->whereRaw('lower(email) = ?', [$wanted->email])->exists()) {
                throw ValidationException::withMessages(['email' => 'Somebody has this address already.']);
            }
            // Nobody knows this password; whoever comes with the link chooses one.
            $user = User::query()->forceCreate(['email' => $wanted->email, 'name' => $wanted->name, 'password' => $this->hasher->make(Str::random(64)), 'locale' => $this->installation->locale()]);
            $this->grant($user, $wanted);

            return $this->links->make($user->refresh());
        });
    }

    public function change(User $person, WantedPerson $wanted): void
    {
        $this->within(function () use ($person, $wanted): void {
            $person->forceFill(['name' => $wanted->name])->save();
            $this->grant($person, $wanted);
            $this->keepAdministrator('roles');
        });
    }

    public function block(User $person, bool $isBlocked): void
    {
        $this->within(function () use ($person, $isBlocked): void {
            $person->forceFill(['blocked_at' => $isBlocked ? now() : null])->save();
            $this->links->void($person);
            $this->sessions->endAll($person, '');
            $this->keepAdministrator('blocked');
        });
    }

    /** Chooses the password of whoever comes with the link. */
    public function enter(string $secret, string $password): User
    {
        return $this->within(function () use ($secret, $password): User {
            $user = $this->links->owner($secret);
            if ($user === null || ! $this->links->take($secret)) {
                throw ValidationException::withMessages(['link' => 'This link does not work any longer. Ask an administrator for a new one.']);
            }
            $user->forceFill(['password' => $password, 'joined_at' => $user->joined_at ?? now(), 'asked_at' => null])->save();
            $this->sessions->endAll($user, '');

            return $user;
        });
    }

    /** What they come to do from now on, in the order in which it is wanted; what stays as it was is not told again. */
    private function grant(User $person, WantedPerson $wanted): void
    {
        $units = Unit::query()->whereIn('code', array_column($wanted->roles, 1))->pluck('id', 'code')->all();
        $rows = array_map(fn (array $held): array => ['role' => $held[0]->value, 'unit_id' => $units[$held[1]] ?? throw ValidationException::withMessages(['roles' => 'A unit that was chosen was just taken away.'])], $wanted->roles);
        $stands = $person->grants()->get()->map(fn (Grant $grant): array => ['role' => $grant->role->value, 'unit_id' => $grant->unit_id])->all();
        $kept = 0;
        while (isset($rows[$kept], $stands[$kept]) && $rows[$kept] === $stands[$kept]) {
            $kept++;
        }
        $person->grants()->skip($kept)->take(PHP_INT_MAX)->get()->each->delete();
        $person->grants()->createMany(array_slice($rows, $kept));
        $person->unsetRelation('grants');
    }

    /** @throws ValidationException where nobody could put it right any longer */
    private function keepAdministrator(string $field): void
    {
        if (! User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Administrator))->whereNull('blocked_at')->whereNotNull('joined_at')->exists()) {
            throw ValidationException::withMessages([$field => 'Somebody has to administer: make another person an administrator first.']);
        }
    }

    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work
     * @return Result
     */
    private function within(\Closure $work): mixed
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($work): mixed {
            // Two administrators at once must not take each other's rights away.
            $this->database->statement('LOCK TABLE users IN SHARE ROW EXCLUSIVE MODE');

            return $work();
        });
    }
}
