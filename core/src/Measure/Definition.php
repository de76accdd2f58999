<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;

/**
 * What the rules need to know of a KPI: how its periods accumulate, which way is better, and how it is judged.
 */
final readonly class Definition
{
    /**
     * @param  string  $measure  the unit of measure as people write it, `Ml/d` or `%`
     * @param  int<0, max>  $decimals  decimals of a figure that is shown
     * @param  Polarity  $polarity  none for a judged KPI, whose colours need no direction
     * @param  list<RuleSet>  $rules  the dated rule sets, in any order
     * @param  BigDecimal|null  $min  what one period's figure cannot fall below
     * @param  BigDecimal|null  $max  what one period's figure cannot exceed
     * @param  BigDecimal|null  $materiality  a change against prior year up to this, in the KPI's measure, is no exception
     * @param  Formula|null  $formula  of a formula KPI
     * @param  Gathering|null  $gathering  how its units become one figure for the unit above; null for not at all
     * @param  string|null  $weightedBy  code of the KPI that weights them
     * @param  TargetFormula|null  $targetFormula  what its targets are worked out by, where they are not set
     * @param  Counted|null  $counted  how it is counted from records, where it is
     */
    public function __construct(
        public string $measure,
        public int $decimals,
        public Polarity $polarity,
        public Accumulation $accumulation,
        public array $rules,
        public Kind $kind = Kind::Entered,
        public Frequency $frequency = Frequency::Month,
        public ?BigDecimal $min = null,
        public ?BigDecimal $max = null,
        public ?BigDecimal $materiality = null,
        public ?Formula $formula = null,
        public ?Gathering $gathering = null,
        public ?string $weightedBy = null,
        public ?TargetFormula $targetFormula = null,
        public ?Counted $counted = null,
    ) {}

    /** @param  list<RuleSet>  $rules */
    public function withRules(array $rules): self
    {
        return $this->judgedBy($this->polarity, $this->accumulation, $rules);
    }

    /**
     * The same KPI with another idea of good.
     *
     * @param  list<RuleSet>  $rules
     */
    public function judgedBy(Polarity $polarity, Accumulation $accumulation, array $rules): self
    {
        return new self(
            $this->measure, $this->decimals, $polarity, $accumulation, $rules, $this->kind, $this->frequency, $this->min, $this->max,
            $this->materiality, $this->formula, $this->gathering, $this->weightedBy, $this->targetFormula, $this->counted,
        );
    }

    /** The same KPI with targets that are worked out in another way, or set. */
    public function aimingBy(?TargetFormula $formula): self
    {
        return new self(
            $this->measure, $this->decimals, $this->polarity, $this->accumulation, $this->rules, $this->kind, $this->frequency, $this->min, $this->max,
            $this->materiality, $this->formula, $this->gathering, $this->weightedBy, $formula, $this->counted,
        );
    }

    /** Why the figure of one period cannot be the KPI's, as a sentence; '' where it can. */
    public function outOfBounds(?BigDecimal $figure): string
    {
        return match (true) {
            $figure === null => '',
            $this->min !== null && $figure->isLessThan($this->min) => "The figure cannot be below {$this->min}.",
            $this->max !== null && $figure->isGreaterThan($this->max) => "The figure cannot be above {$this->max}.",
            default => '',
        };
    }

    /** Absolute differences of a percentage are percentage points. */
    public function isPercentage(): bool
    {
        return $this->measure === '%';
    }

    /**
     * The newest of rule sets that starts at or before the month, so that changing a rule never recolours the past.
     *
     * @param  list<RuleSet>  $rules
     */
    public static function inForce(array $rules, Period $month): ?RuleSet
    {
        $inForce = null;
        foreach ($rules as $rule) {
            if ($rule->from->compareTo($month) <= 0 && ($inForce === null || $rule->from->compareTo($inForce->from) > 0)) {
                $inForce = $rule;
            }
        }

        return $inForce;
    }
}
