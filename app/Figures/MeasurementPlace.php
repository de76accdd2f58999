<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;

/**
 * Where a KPI is measured and what it weighs there: all that a roll-up needs.
 */
final readonly class MeasurementPlace
{
    public function __construct(public int $id, public int $unitId, public ?int $ownerId, public BigDecimal $weight) {}
}
