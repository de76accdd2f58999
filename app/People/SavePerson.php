<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Unit;
use App\Models\User;
use App\Support\Trail;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Invites people, changes what they come to do, blocks them and lets them in again. Somebody always stays who administers.
 */
final readonly class SavePerson
{
    public function __construct(private Connection $database, private EntryLinks $links, private Hasher $hasher, private Trail $trail) {}

    /** @return string the secret of the link to hand over */
    public function invite(WantedPerson $wanted): string
    {
        return $this->within(function () use ($wanted): string {
            if (User::query()->whereRaw('lower(email) = ?', [$wanted->email])->exists()) {
                throw ValidationException::withMessages(['email' => 'Somebody has this address already.']);
            }
            // Nobody knows this password; whoever comes with the link chooses one.
            $user = User::query()->forceCreate(['email' => $wanted->email, 'password' => $this->hasher->make(Str::random(64)), ...$this->columns($wanted)]);

            return $this->links->make($user->refresh());
        });
    }

    public function change(User $person, WantedPerson $wanted): void
    {
        $this->within(function () use ($person, $wanted): void {
            $person->forceFill($this->columns($wanted))->save();
            $this->keepAdministrator('administrator');
        });
    }

    public function block(User $person, bool $isBlocked): void
    {
        $this->within(function () use ($person, $isBlocked): void {
            $person->forceFill(['blocked_at' => $isBlocked ? now() : null])->save();
            $this->links->void($person);
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
            $user->forceFill(['password' => $password, 'joined_at' => $user->joined_at ?? now()])->save();

            return $user;
        });
    }

    /** @return array<string, mixed> */
    private function columns(WantedPerson $wanted): array
    {
        return [
            'name' => $wanted->name, 'role' => $wanted->role, 'is_administrator' => $wanted->isAdministrator, 'unit_id' => Unit::query()->where('code', $wanted->unit)->firstOrFail()->id,
        ];
    }

    /** @throws ValidationException where nobody could put it right any longer */
    private function keepAdministrator(string $field): void
    {
        if (! User::query()->where('is_administrator', true)->whereNull('blocked_at')->whereNotNull('joined_at')->exists()) {
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
