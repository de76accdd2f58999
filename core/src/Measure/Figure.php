<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use InvalidArgumentException;

/**
 * Reading of figures: the strict form that is stored and exchanged, and what people type or paste.
 */
final class Figure
{
    public const DIGITS_BEFORE_POINT = 20;

    public const DIGITS_AFTER_POINT = 8;

    /**
     * A stored figure, `-?digits[.digits]` and nothing else.
     *
     * @throws InvalidArgumentException when the text has another form or more digits than are kept
     */
    public static function parse(string $text): BigDecimal
    {
        if (preg_match('/\A-?(\d+)(?:\.(\d+))?\z/', $text, $match) !== 1) {
            throw new InvalidArgumentException("'{$text}' is not a figure.");
        }
        if (strlen(ltrim($match[1], '0')) > self::DIGITS_BEFORE_POINT) {
            throw new InvalidArgumentException("'{$text}' has more than ".self::DIGITS_BEFORE_POINT.' digits before the point.');
        }
        if (strlen($match[2] ?? '') > self::DIGITS_AFTER_POINT) {
            throw new InvalidArgumentException("'{$text}' has more than ".self::DIGITS_AFTER_POINT.' decimals.');
        }

        return BigDecimal::of($text);
    }

    /**
     * A figure as somebody typed or pasted it. Thousands separators, a leading currency sign, a trailing `%`, a
     * leading or trailing minus and accounting parentheses are understood. Blank is no reading, never zero.
     *
     * @param  '.'|','  $decimalSeparator  that of the person's number setting; it is never guessed
     *
     * @throws InvalidArgumentException when the text is anything else; the message names the text
     */
    public static function typed(string $text, string $decimalSeparator): ?BigDecimal
    {
        // Spreadsheets and word processors put the several Unicode blanks and minus signs for the plain ones.
        $plain = trim(preg_replace('/[\s\x{00A0}\x{2007}\x{2009}\x{202F}]+/u', ' ', $text) ?? $text);
        $plain = str_replace(["\u{2212}", "\u{2013}"], '-', $plain);
        if ($plain === '') {
            return null;
        }

        $grouping = $decimalSeparator === ',' ? "[.' \u{2019}]" : "[,' \u{2019}]";
        $point = preg_quote($decimalSeparator, '/');
        $number = "(?<whole>\d{1,3}(?:{$grouping}\d{3})+|\d+)?(?:{$point}(?<decimals>\d*))?";
        $pattern = "/\A(?<open>\()? ?(?<minus>[-+])? ?(?:\p{Sc} ?)?(?<inner>-)?{$number} ?%? ?(?<trailing>-)?(?<close>\))?\z/u";
        if (preg_match($pattern, $plain, $match) !== 1) {
            throw new InvalidArgumentException("'{$text}' is not a number.");
        }
        $whole = preg_replace('/\D/u', '', $match['whole'] ?? '') ?? '';
        $decimals = $match['decimals'] ?? '';
        $signs = [
            ($match['open'] ?? '') !== '',
            ($match['minus'] ?? '') === '-' || ($match['inner'] ?? '') !== '',
            ($match['trailing'] ?? '') !== '',
        ];
        $unbalanced = (($match['open'] ?? '') !== '') !== (($match['close'] ?? '') !== '');
        if ($whole.$decimals === '' || $unbalanced || array_sum(array_map(intval(...), $signs)) > 1) {
            throw new InvalidArgumentException("'{$text}' is not a number.");
        }

        $negative = in_array(true, $signs, true);

        return self::parse(($negative ? '-' : '').($whole === '' ? '0' : $whole).($decimals === '' ? '' : ".{$decimals}"));
    }
}
