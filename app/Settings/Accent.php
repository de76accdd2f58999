<?php

declare(strict_types=1);

namespace App\Settings;

/**
 * The colour of an organisation on paper. Text and rules are drawn in it, so it stands out from white as text has to:
 * contrast 4.5 : 1 by the formula of WCAG 2.2, success criterion 1.4.3.
 */
final class Accent
{
    private const LEAST = 4.5;

    /** @param  string  $colour  `#0b4a6f` */
    public static function isLegible(string $colour): bool
    {
        return 1.05 / (self::luminance($colour) + 0.05) >= self::LEAST;
    }

    /** Relative luminance, 0 for black to 1 for white (WCAG 2.2). */
    private static function luminance(string $colour): float
    {
        $linear = array_map(function (string $channel): float {
            $share = hexdec($channel) / 255;

            return $share <= 0.04045 ? $share / 12.92 : (($share + 0.055) / 1.055) ** 2.4;
        }, str_split(substr($colour, 1), 2));

        return 0.2126 * $linear[0] + 0.7152 * ($linear[1] ?? 0) + 0.0722 * ($linear[2] ?? 0);
    }
}
