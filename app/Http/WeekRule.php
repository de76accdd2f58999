<?php

declare(strict_types=1);

namespace App\Http;

use Closure;
use Illuminate\Contracts\Validation\ValidationRule;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/** A week of ISO 8601 such as 2026-W34. */
final class WeekRule implements ValidationRule
{
    public function validate(string $attribute, mixed $value, Closure $fail): void
    {
        try {
            $year = (int) substr(Period::parse(is_string($value) ? $value : '', Frequency::Week)->key(), 0, 4);
        } catch (InvalidArgumentException) {
            $fail('This is not a week such as 2026-W34.');

            return;
        }
        if ($year < 1990 || $year > 2100) {
            $fail('Weeks from 1990 to 2100 can be used.');
        }
    }
}
