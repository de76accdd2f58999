<?php

declare(strict_types=1);

namespace App\Organisation;

/** A unit as a list has it. */
final readonly class PlannedUnit
{
    /**
     * @param  int  $depth  0 for the organisation itself
     * @param  string|null  $parent  code of the unit above it; null for the organisation itself
     * @param  bool  $isThere  whether there is such a unit already, which then stays as it is
     * @param  string  $problem  why it cannot be made, as a sentence; '' where it can
     */
    public function __construct(
        public int $line,
        public string $name,
        public string $code,
        public string $kind,
        public int $depth,
        public ?string $parent,
        public bool $isThere,
        public string $problem,
    ) {}

    public function isNew(): bool
    {
        return ! $this->isThere && $this->problem === '';
    }
}
