<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/**
 * The day by which something was agreed to be done. Days are written 2026-09-30, and compare as texts.
 */
final class Deadline
{
    /** Whether what is still open should have been done: the day itself is still in time. */
    public static function isMissed(string $due, string $today): bool
    {
        return $due < $today;
    }

    /** Whether the day can be agreed upon today. */
    public static function mayBeAgreed(string $due, string $today): bool
    {
        return $due >= $today;
    }
}
