<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\RuleSet;

/**
 * A KPI as it is measured in one unit: its definition with the actuals and the targets there. Prior year is the
 * actuals of a year earlier, never a series of its own. The actuals of a judged KPI are the scores of its colours.
 */
final readonly class Measurement
{
    /**
     * @param  list<RuleSet>  $ownRules  rule sets of this unit alone; once one is in force it goes before the KPI's
     * @param  list<Period>|null  $baseline  the periods that control limits are taken from, where somebody has fixed them
     * @param  list<Call>  $calls
     */
    public function __construct(
        public Definition $definition,
        public Figures $actuals,
        public Targets $targets,
        public Tenure $tenure = new Tenure,
        public array $ownRules = [],
        public ?array $baseline = null,
        public array $calls = [],
        /** the KPI that weights it in this unit, where its mean over units is weighted */
        public ?self $weight = null,
    ) {}

    /** The rule set in force in the month, the unit's own before the KPI's. */
    public function ruleAt(Period $month): ?RuleSet
    {
        return Definition::inForce($this->ownRules, $month) ?? Definition::inForce($this->definition->rules, $month);
    }

    /**
     * The figure of the periods; null when there is none.
     *
     * @param  list<Period>  $periods  all of them reported, earliest first
     */
    public function gather(array $periods): ?Exact
    {
        return $this->actuals->gather($periods, $this->definition->accumulation);
    }

    /**
     * The same figures under other limits and targets, as they are tried out: no unit's own rules, and no calls.
     */
    public function trying(RuleSet $rule, Targets $targets): self
    {
        return new self($this->definition->withRules([$rule]), $this->actuals, $targets, $this->tenure, [], $this->baseline);
    }

    /** The same KPI with other figures or targets, as they are tried out. */
    public function with(Figures $actuals, Targets $targets): self
    {
        return new self($this->definition, $actuals, $targets, $this->tenure, $this->ownRules, $this->baseline, $this->calls, $this->weight);
    }

    /**
     * The same measurement with one period's figure replaced, or taken out when null.
     *
     * @throws InvalidArgumentException when its figures are not entered
     */
    public function entering(Period $period, ?BigDecimal $figure): self
    {
        if (! $this->actuals instanceof Series && ! $this->actuals instanceof RecordFigures) {
            throw new InvalidArgumentException('The figures of this KPI are worked out, not entered.');
        }

        return $this->with($this->actuals->with($period, $figure), $this->targets);
    }
}
