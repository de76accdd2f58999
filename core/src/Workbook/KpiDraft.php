<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Measure\Definition;

/**
 * A KPI that is being read: its definition, and its units by code.
 */
final class KpiDraft
{
    /** @var array<string, MeasurementDraft> */
    public array $units = [];

    /** @param  bool  $hasPolarity  whether it is known which form its targets have */
    public function __construct(
        public readonly string $code,
        public readonly Row $row,
        public readonly Definition $definition,
        public readonly bool $hasPolarity,
    ) {}
}
