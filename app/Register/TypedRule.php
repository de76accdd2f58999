<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellValue;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\TargetFormula;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;

/** A rule that is being typed for a KPI, and what it is tried on. */
final readonly class TypedRule
{
    /**
     * @param  string  $code  of the KPI
     * @param  string  $unit  code of the unit whose figures it is tried on
     * @param  Period  $month  the latest one
     * @param  RuleSet|null  $rule  as if it had always been in force; null where nothing is judged
     * @param  array<string, CellValue>  $targets  as typed for the unit, by period
     * @param  TargetFormula|null  $targetFormula  null where targets are set, and while it cannot be read
     */
    public function __construct(
        public string $code,
        public string $unit,
        public Period $month,
        public Polarity $polarity,
        public Accumulation $accumulation,
        public ?RuleSet $rule,
        public array $targets,
        public ?TargetFormula $targetFormula,
    ) {}
}
