<?php

declare(strict_types=1);

namespace App\Http;

use Closure;
use Illuminate\Contracts\Validation\ValidationRule;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;

/**
 * A month such as 2026-08, within the years that a calendar here can sensibly hold.
 */
final class MonthRule implements ValidationRule
{
    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        try {
            $year = Period::parse(is_string($value) ? $value : '')->year();
        } catch (InvalidArgumentException) {
            $fail('This is not a month such as 2026-08.');

            return;
        }
        if ($year < 1990 || $year > 2100) {
            $fail('Months from 1990 to 2100 can be used.');
        }
    }
}
