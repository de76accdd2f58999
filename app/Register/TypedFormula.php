<?php

declare(strict_types=1);

namespace App\Register;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;

/** A formula that is being typed, and what it is tried on. */
final readonly class TypedFormula
{
    /**
     * @param  string  $code  of the KPI that it defines; blank where it has none yet
     * @param  bool  $isTarget  whether it gives targets, and not figures
     * @param  string  $unit  code of the unit whose figures it is tried on
     * @param  Period  $month  the latest one
     * @param  int<0, max>  $decimals  that its values are shown with
     */
    public function __construct(
        public string $code,
        public string $text,
        public bool $isTarget,
        public string $unit,
        public Period $month,
        public Frequency $frequency,
        public Accumulation $accumulation,
        public int $decimals,
    ) {}
}
