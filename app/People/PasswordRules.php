<?php

declare(strict_types=1);

namespace App\People;

use Illuminate\Support\Str;

/**
 * Which passwords are taken (NIST SP 800-63B, section 5.1.1.2): long ones that are not among those that are tried first, and
 * not made of what everybody knows of the person. Nothing is asked of their letters, digits and signs.
 */
final class PasswordRules
{
    public const LEAST = 12;

    /** What is beyond is not looked at by the hash (bcrypt). */
    public const MOST_BYTES = 72;

    /** So much of it must be something else than the person's own data. */
    private const OF_ITS_OWN = 6;

    /** Shorter parts of a name are found in too many words. */
    private const PART = 4;

    /** @var array<string, true>|null */
    private static ?array $common = null;

    /**
     * Why the password is not taken, as a sentence; '' where it is.
     *
     * @param  list<string>  $own  what is known of the person: name, e-mail address, organisation
     */
    public static function problem(string $password, array $own): string
    {
        return match (true) {
            mb_strlen($password) < self::LEAST => 'A password has at least '.self::LEAST.' characters. A few words in a row are easy to keep in mind.',
            strlen($password) > self::MOST_BYTES => 'A password has up to '.self::MOST_BYTES.' bytes.',
            self::isCommon($password) => 'This password is among those that are tried first. Take a few words that do not belong together.',
            self::isOwn($password, $own) => 'This password is made of your name, address or organisation, which others know.',
            default => '',
        };
    }

    private static function isCommon(string $password): bool
    {
        $plain = mb_strtolower($password);
        // The same few signs again and again, and a common one with digits and signs around it, are no better.
        $repeated = preg_match('/\A(.{1,8}?)\1+.{0,3}\z/su', $plain, $part) === 1 ? $part[1] : $plain;
        $bare = preg_replace('/\A[^a-z]+|[^a-z]+\z/', '', $plain) ?? $plain;
        $isRun = str_contains('01234567890123456789', $plain) || str_contains('abcdefghijklmnopqrstuvwxyz', $plain) || str_contains('qwertyuiopasdfghjklzxcvbnm', $plain);

        return $isRun || mb_strlen($repeated) <= 3 || isset(self::common()[$plain]) || isset(self::common()[$repeated]) || isset(self::common()[$bare]);
    }

    /** @param  list<string>  $own */
    private static function isOwn(string $password, array $own): bool
    {
        $left = mb_strtolower(Str::ascii($password));
        $parts = array_filter(
            Str::of(implode(' ', [...$own, 'kybernet']))->ascii()->lower()->split('/[^a-z0-9]+/', -1, PREG_SPLIT_NO_EMPTY)->all(),
            fn (string $part): bool => strlen($part) >= self::PART,
        );
        $rest = str_replace($parts, '', $left);

        return $rest !== $left && strlen(preg_replace('/[^a-z]/', '', $rest) ?? '') < self::OF_ITS_OWN;
    }

    /** @return array<string, true> */
    private static function common(): array
    {
        return self::$common ??= array_fill_keys(explode("\n", trim((string) file_get_contents(resource_path('data/common-passwords.txt')))), true);
    }
}
