<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use InvalidArgumentException;

/**
 * How a unit's status follows from the statuses under it, with the method's own two cuts.
 */
final readonly class RollUpMethod
{
    private function __construct(public RollUpRule $rule, public BigDecimal $green, public BigDecimal $amberOrRed) {}

    /**
     * By the weighted mean of the scores.
     *
     * @param  string  $green  the score, 0 to 2, from which the unit is green
     * @param  string  $amber  the score from which it is amber
     *
     * @throws InvalidArgumentException when amber asks for more than green
     */
    public static function weighted(string $green = '1.5', string $amber = '0.5'): self
    {
        $method = new self(RollUpRule::Weighted, BigDecimal::of($green), BigDecimal::of($amber));
        if ($method->amberOrRed->isGreaterThan($method->green)) {
            throw new InvalidArgumentException("The cut for drifting must be {$green} or lower.");
        }

        return $method;
    }

    /**
     * By a rule with its two cuts; the worst status has none.
     *
     * @throws InvalidArgumentException when amber asks for more than green
     */
    public static function by(RollUpRule $rule, string $green, string $other): self
    {
        return match ($rule) {
            RollUpRule::Weighted => self::weighted($green, $other),
            RollUpRule::Worst => self::worst(),
            RollUpRule::Share => self::share($other, $green),
        };
    }

    /** The worst status present. */
    public static function worst(): self
    {
        return new self(RollUpRule::Worst, BigDecimal::zero(), BigDecimal::zero());
    }

    /**
     * By the share of the judged weight.
     *
     * @param  string  $red  % of the weight above which the unit is red
     * @param  string  $green  % of the weight from which it is green, where none is red
     */
    public static function share(string $red = '25', string $green = '75'): self
    {
        return new self(RollUpRule::Share, BigDecimal::of($green), BigDecimal::of($red));
    }

    /** Equal for equal methods. */
    public function key(): string
    {
        return "{$this->rule->value} {$this->green} {$this->amberOrRed}";
    }

    /** As it is explained. */
    public function words(): string
    {
        return match ($this->rule) {
            RollUpRule::Weighted => "The weighted mean of the scores: red 0, amber 1, green 2. On course from {$this->green}, drifting from {$this->amberOrRed}.",
            RollUpRule::Worst => 'The worst status of all.',
            RollUpRule::Share => "By the share of the weight: off course when more than {$this->amberOrRed} % is red, on course when at least {$this->green} % is green and none is red.",
        };
    }
}
