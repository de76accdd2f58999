<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Status\RollUpMethod;

/**
 * A unit of the organisation.
 */
final readonly class UnitEntry
{
    /** @param  string|null  $parent  code of the unit above */
    public function __construct(
        public string $code,
        public string $name,
        public ?string $kind,
        public ?string $parent,
        public BigDecimal $weight,
        public RollUpMethod $rollUp,
    ) {}
}
