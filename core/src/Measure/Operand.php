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
     * @param  bool  $orZero  a missing reading counts as 0 where some other operand has one
     */
    public function __construct(public string $code, public OperandOf $of = OperandOf::Here, public bool $orZero = false) {}

    /** What tells it from the formula's other operands. */
    public function key(): string
    {
        return $this->of === OperandOf::Here ? $this->code : "{$this->of->value}({$this->code})";
    }
}
