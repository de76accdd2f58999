<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * A KPI that a formula names.
 */
final readonly class Operand
{
    /**
     * @param  string  $code  of the KPI
     * @param  bool  $below  gathered over the units below, instead of the figure of the unit itself
     * @param  bool  $orZero  a missing reading counts as 0 where some other operand has one
     */
    public function __construct(public string $code, public bool $below, public bool $orZero) {}

    /** What tells it from the formula's other operands. */
    public function key(): string
    {
        return $this->below ? "below({$this->code})" : $this->code;
    }
}
