<?php

declare(strict_types=1);

namespace App\People;

use InvalidArgumentException;

/**
 * Codes that change with time, from a secret that a person's device and this server share.
 *
 * RFC 6238 over RFC 4226 (HOTP, section 5.3), secrets written as RFC 4648 base32 without padding.
 */
final readonly class TimeCode
{
    /** Seconds for which a code is the one to give, RFC 6238 section 4.1. */
    public const STEP = 30;

    private const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    /**
     * @param  string  $key  bytes
     * @param  'sha1'|'sha256'|'sha512'  $hash
     */
    public function __construct(#[\SensitiveParameter] private string $key, private int $digits = 6, private string $hash = 'sha1') {}

    /** A secret of 160 bits, as RFC 4226 section 4 recommends. */
    public static function newSecret(): string
    {
        return self::base32(random_bytes(20));
    }

    public static function ofSecret(#[\SensitiveParameter] string $secret): self
    {
        return new self(self::bytes($secret));
    }

    public static function step(int $seconds): int
    {
        return intdiv($seconds, self::STEP);
    }

    public function at(int $step): string
    {
        $hash = hash_hmac($this->hash, pack('J', $step), $this->key, true);
        $offset = ord($hash[-1]) & 0x0F;
        /** @var array{1: int} $part */
        $part = unpack('N', substr($hash, $offset, 4));

        return str_pad((string) (($part[1] & 0x7FFFFFFF) % 10 ** $this->digits), $this->digits, '0', STR_PAD_LEFT);
    }

    /**
     * Which step the code is of, among the present one and those beside it: clocks differ, and people take their time.
     *
     * @param  int  $after  of the code that was taken last; none up to it counts again
     */
    public function stepOf(string $code, int $seconds, int $after): ?int
    {
        $now = self::step($seconds);
        $found = null;
        foreach ([$now - 1, $now, $now + 1] as $step) {
            // All three are compared, whichever fits: the time that it takes says nothing.
            if (hash_equals($this->at($step), $code) && $step > $after) {
                $found = $step;
            }
        }

        return $found;
    }

    public static function base32(string $bytes): string
    {
        $text = '';
        $bits = '';
        foreach (str_split($bytes) as $byte) {
            $bits .= str_pad(decbin(ord($byte)), 8, '0', STR_PAD_LEFT);
        }
        foreach (str_split($bits, 5) as $five) {
            $text .= self::LETTERS[(int) bindec(str_pad($five, 5, '0'))];
        }

        return $text;
    }

    /** @throws InvalidArgumentException where it is no base32 */
    public static function bytes(string $text): string
    {
        $bits = '';
        foreach (str_split($text) as $letter) {
            $value = strpos(self::LETTERS, $letter);
            $bits .= $value === false ? throw new InvalidArgumentException('A secret is written in A to Z and 2 to 7.') : str_pad(decbin($value), 5, '0', STR_PAD_LEFT);
        }

        return implode('', array_map(fn (string $byte): string => chr((int) bindec($byte)), array_filter(str_split($bits, 8), fn (string $byte): bool => strlen($byte) === 8)));
    }
}
