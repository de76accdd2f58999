<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/**
 * A cell as somebody wants it, with what they saw there.
 */
final readonly class WantedCell
{
    /**
     * @param  CellValue|NoteText  $value  blank takes it away
     * @param  int|CellValue|NoteText|null  $seen  the version, or the value, that stood there when it was looked at; null writes over whatever stands
     * @param  ReadingState|null  $state  of a reading that is put back as it was; otherwise it is new
     * @param  bool  $isOver  it is put over a counted figure, knowingly
     * @param  array<string, BigDecimal>|null  $parts  of which a reading is the sum, by name; null where only the sum is known
     */
    public function __construct(
        public MeasurementFacts $kpi,
        public Period $period,
        public CellValue|NoteText $value,
        public int|CellValue|NoteText|null $seen,
        public ?ReadingState $state = null,
        public bool $isOver = false,
        public ?array $parts = null,
    ) {}
}
