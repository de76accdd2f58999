<?php

declare(strict_types=1);

namespace App\Organisation;

use Kybernet\Core\Status\RollUpRule;

/** Where a roll-up rule may draw its two lines. */
final class RollUpCuts
{
    /** @return string what is wrong, '' where nothing is */
    public static function problem(string $rule, float $green, float $other): string
    {
        return match (true) {
            $rule === RollUpRule::Weighted->value && ($green > 2 || $other > $green) => 'Scores run from 0 to 2, and on course begins above drifting.',
            $rule === RollUpRule::Share->value && ($green > 100 || $other > 100) => 'A share is up to 100 %.',
            default => '',
        };
    }
}
