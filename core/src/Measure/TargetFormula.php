<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * What a KPI's targets are worked out by, where they are not set: one formula, or a lower and an upper one for a band.
 */
final readonly class TargetFormula
{
    public function __construct(public Formula $line, public ?Formula $upper = null) {}

    public function isBand(): bool
    {
        return $this->upper !== null;
    }

    /** @return list<Formula> */
    public function formulas(): array
    {
        return $this->upper === null ? [$this->line] : [$this->line, $this->upper];
    }

    /** @return list<Operand> */
    public function operands(): array
    {
        return array_merge(...array_map(fn (Formula $formula): array => array_values($formula->operands), $this->formulas()));
    }

    /** As people write it: `0.05 * SALES`, of a band `0.9 * PLAN – 1.1 * PLAN`. */
    public function words(): string
    {
        return implode(" \u{2013} ", array_map(fn (Formula $formula): string => $formula->text, $this->formulas()));
    }
}
