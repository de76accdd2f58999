<?php

declare(strict_types=1);

namespace App\Support;

use NumberFormatter;
use ResourceBundle;

/** Currencies in use, as the library of the platform knows them (ISO 4217). */
final class Currencies
{
    /** How amounts of a currency are written in English: `£`, `€`, `CHF`. */
    public static function symbol(string $code): string
    {
        return (new NumberFormatter("en@currency={$code}", NumberFormatter::CURRENCY))->getSymbol(NumberFormatter::CURRENCY_SYMBOL);
    }

    /** @return list<string> */
    public static function all(): array
    {
        $bundle = ResourceBundle::create('en', 'ICUDATA-curr', false)?->get('Currencies');

        return $bundle instanceof ResourceBundle ? array_values(array_filter(array_keys(iterator_to_array($bundle)), fn (int|string $code): bool => preg_match('/\A[A-Z]{3}\z/', (string) $code) === 1)) : [];
    }
}
