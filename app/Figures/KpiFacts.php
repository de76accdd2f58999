<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Measurement;

/**
 * A KPI in one unit as the screens need it: what it is called beside what the rules judge.
 */
final readonly class KpiFacts
{
    public function __construct(
        public int $id,
        public int $unitId,
        public string $code,
        public string $name,
        public string $purpose,
        public string $level,
        public ?string $theme,
        public bool $scaled,
        public BigDecimal $weight,
        public ?int $ownerId,
        public ?string $owner,
        public Measurement $measurement,
    ) {}
}
