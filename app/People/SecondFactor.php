<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\Support\Trail;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * The second thing that a person proves when they sign in: that they hold their device, or one of the codes that they put
 * away for the day when they lose it.
 */
final readonly class SecondFactor
{
    private const RECOVERY_CODES = 10;

    public function __construct(private Connection $database, private Trail $trail) {}

    /** A secret to be shown to the person; nothing is asked for until a code of it was given. */
    public function begin(User $user): string
    {
        $secret = TimeCode::newSecret();
        if ($user->second_factor_since !== null) {
            throw ValidationException::withMessages(['code' => 'A second factor is in use. Take it off first.']);
        }
        $user->forceFill(['second_factor' => $secret, 'second_factor_step' => 0])->save();

        return $secret;
    }

    /**
     * From now on a code is asked for.
     *
     * @return list<string> recovery codes, each for one time; only their hashes are kept
     *
     * @throws ValidationException where the code is wrong
     */
    public function confirm(User $user, string $code): array
    {
        return $this->within(function () use ($user, $code): array {
            $user->refresh();
            if ($user->second_factor_since !== null) {
                throw ValidationException::withMessages(['code' => 'A second factor is in use already.']);
            }
            if (! $this->takeTimeCode($user, $code)) {
                throw ValidationException::withMessages(['code' => 'This is not the code that is shown now. Look whether the clock of the device is right.']);
            }
            $user->forceFill(['second_factor_since' => now()])->save();

            return $this->renewCodes($user);
        });
    }

    public function isAsked(User $user): bool
    {
        return $user->second_factor_since !== null;
    }

    /** Whether the code is right; each counts once, whoever gives it first. */
    public function take(User $user, string $code): bool
    {
        return $this->within(function () use ($user, $code): bool {
            // Of two who come with the same code at once, the second finds it taken.
            User::query()->whereKey($user->id)->lockForUpdate()->first();

            return $this->takeTimeCode($user->refresh(), $code) || $this->takeRecoveryCode($user, $code);
        });
    }

    public function remaining(User $user): int
    {
        return $this->database->table('recovery_codes')->where('user_id', $user->id)->count();
    }

    public function takeOff(User $user): void
    {
        $this->within(function () use ($user): void {
            $user->forceFill(['second_factor' => null, 'second_factor_since' => null, 'second_factor_step' => 0])->save();
            $this->database->table('recovery_codes')->where('user_id', $user->id)->delete();
        });
    }

    private function takeTimeCode(User $user, string $code): bool
    {
        $digits = preg_replace('/\s+/', '', $code) ?? '';
        $step = $user->second_factor === null ? null : TimeCode::ofSecret($user->second_factor)->stepOf($digits, CarbonImmutable::now()->getTimestamp(), $user->second_factor_step);
        if ($step === null) {
            return false;
        }
        $user->forceFill(['second_factor_step' => $step])->save();

        return true;
    }

    private function takeRecoveryCode(User $user, string $code): bool
    {
        return $this->database->table('recovery_codes')->where('user_id', $user->id)->where('hash', self::hash($code))->delete() === 1;
    }

    /** @return list<string> */
    private function renewCodes(User $user): array
    {
        $this->database->table('recovery_codes')->where('user_id', $user->id)->delete();
        $codes = array_map(fn (): string => implode('-', str_split(strtolower(TimeCode::base32(random_bytes(14))), 4)), range(1, self::RECOVERY_CODES));
        $this->database->table('recovery_codes')->insert(array_map(fn (string $code): array => ['user_id' => $user->id, 'hash' => self::hash($code)], $codes));

        return $codes;
    }

    /** They have 112 bits of chance each, so a plain hash keeps them. */
    private static function hash(string $code): string
    {
        return hash('sha256', preg_replace('/[^a-z2-7]/', '', strtolower($code)) ?? '');
    }

    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work
     * @return Result
     */
    private function within(\Closure $work): mixed
    {
        return $this->trail->within((string) Str::uuid(), '', $work);
    }
}
