<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;

/**
 * What a KPI in one unit is called, and whose it is: all that a page needs beside what was judged.
 */
final readonly class MeasurementLine
{
    /** @param  int|null  $dueDay  day of the month after a period by which its reading is due */
    public function __construct(
        public int $id,
        public int $kpiId,
        public int $unitId,
        public string $code,
        public string $name,
        public string $measure,
        public string $level,
        public ?string $theme,
        public BigDecimal $weight,
        public ?int $ownerId,
        public ?string $owner,
        public ?string $ownerEmail,
        public ?int $dueDay,
        public bool $isCounted,
    ) {}
}
