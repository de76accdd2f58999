<?php

declare(strict_types=1);

namespace App\Support;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Measure\Figure;
use NumberFormatter;

/**
 * How a person writes numbers: their locale decides the decimal separator, which is never guessed from the text.
 */
final readonly class NumberSetting
{
    public const LOCALES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'de-CH'];

    /** In which months and days are written, on screens that write them. */
    public const DATE_LANGUAGES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL'];

    /** @var '.'|',' */
    private string $separator;

    public function __construct(string $locale)
    {
        $symbol = (new NumberFormatter($locale, NumberFormatter::DECIMAL))->getSymbol(NumberFormatter::DECIMAL_SEPARATOR_SYMBOL);
        $this->separator = $symbol === ',' ? ',' : '.';
    }

    /** @throws InvalidArgumentException with a message for the person who typed it */
    public function read(string $typed): ?BigDecimal
    {
        return Figure::typed($typed, $this->separator);
    }

    /** The exact figure as this person would type it: no thousands separators, at least the decimals given. */
    public function write(BigDecimal|string|null $figure, int $decimals = 0): string
    {
        if ($figure === null) {
            return '';
        }
        $exact = BigDecimal::of($figure)->stripTrailingZeros();

        return str_replace('.', $this->separator, (string) $exact->toScale(max($decimals, $exact->getScale())));
    }
}
