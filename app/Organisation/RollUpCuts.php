<?php

declare(strict_types=1);

namespace App\Organisation;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Status\RollUpMethod;
use Kybernet\Core\Status\RollUpRule;

/** Cuts of a roll-up as somebody sets them: what the core asks of them, within the scale on which they lie. */
final class RollUpCuts
{
    /** Scores run from 0 to 2, shares to 100 %. */
    private const MOST = [RollUpRule::Weighted->value => 2, RollUpRule::Share->value => 100];

    /** @return string what is wrong, '' where nothing is */
    public static function problem(RollUpRule $rule, string $green, string $other): string
    {
        try {
            RollUpMethod::by($rule, $green, $other);
        } catch (InvalidArgumentException $problem) {
            return $problem->getMessage();
        }
        $most = self::MOST[$rule->value] ?? null;

        return $most !== null && BigDecimal::max($green, $other)->isGreaterThan($most) ? "A cut is up to {$most}." : '';
    }
}
