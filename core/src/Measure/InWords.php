<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;

/**
 * Figures in the middle of a sentence. Groups of three digits are set apart by a thin space, which no number setting
 * takes for a decimal sign (SI brochure, 9th edition, section 5.4.4, from memory; four digits stay together).
 */
final class InWords
{
    private const THIN_SPACE = "\u{202F}";

    private const MINUS = "\u{2212}";

    /** Without zeros that say nothing. */
    public static function figure(BigDecimal $figure): string
    {
        return self::grouped((string) $figure->stripTrailingZeros());
    }

    /** With its measure: behind the figure, but a currency before it. */
    public static function measured(BigDecimal $figure, string $measure): string
    {
        $text = self::figure($figure);

        return match (true) {
            $measure === '' => $text,
            preg_match('/\A\p{Sc}\z/u', $measure) === 1 => (string) preg_replace('/\A'.self::MINUS.'?/u', "\$0{$measure}", $text),
            default => "{$text} {$measure}",
        };
    }

    /** @param  string  $digits  with a plain point and sign */
    public static function grouped(string $digits): string
    {
        $parts = explode('.', ltrim($digits, '-'), 2);
        if (strlen($parts[0]) > 4) {
            $parts[0] = (string) preg_replace('/(?<=\d)(?=(\d{3})+\z)/', self::THIN_SPACE, $parts[0]);
        }

        return (str_starts_with($digits, '-') ? self::MINUS : '').implode('.', $parts);
    }
}
