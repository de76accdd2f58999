<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;

/**
 * What stands in a cell.
 */
final readonly class Standing
{
    /**
     * @param  int  $version  0 where nothing ever stood there; targets have none
     * @param  string|null  $by  who wrote it
     * @param  bool  $isNoted  a reading has its note
     * @param  array<string, BigDecimal>  $parts  of which a reading is the sum, by name
     */
    public function __construct(
        public CellValue|NoteText $value,
        public int $version = 0,
        public ?string $by = null,
        public ?string $asOf = null,
        public bool $isNoted = false,
        public array $parts = [],
    ) {}

    /** @param  array<string, BigDecimal>  $parts */
    public function hasParts(array $parts): bool
    {
        return count($parts) === count($this->parts)
            && array_filter($parts, fn (BigDecimal $figure, string|int $part): bool => ($this->parts[$part] ?? null)?->isEqualTo($figure) !== true, ARRAY_FILTER_USE_BOTH) === [];
    }

    /** Whether that is what stands here. */
    public function holds(CellValue|NoteText $value): bool
    {
        return match (true) {
            $value instanceof NoteText => $this->value instanceof NoteText && $value->equals($this->value),
            default => $this->value instanceof CellValue && $value->equals($this->value),
        };
    }
}
