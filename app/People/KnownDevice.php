<?php

declare(strict_types=1);

namespace App\People;

use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cookie;

/**
 * A device from which somebody has signed in to an account before, by a cookie that only this server can write.
 */
final class KnownDevice
{
    private const COOKIE = 'kybernet_device';

    private const MINUTES = 60 * 24 * 180;

    public static function is(Request $request, string $email): bool
    {
        $known = $request->cookie(self::COOKIE);

        return is_string($known) && in_array(self::mark($email), explode(' ', $known), true);
    }

    public static function remember(Request $request, string $email): void
    {
        $known = $request->cookie(self::COOKIE);
        $marks = array_slice(array_unique([self::mark($email), ...explode(' ', is_string($known) ? $known : '')]), 0, 10);
        Cookie::queue(self::COOKIE, trim(implode(' ', $marks)), self::MINUTES);
    }

    private static function mark(string $email): string
    {
        return substr(hash('sha256', mb_strtolower($email)), 0, 16);
    }
}
