<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Records\Split;

/**
 * A KPI that is being read: its definition, and its units by code.
 */
final class KpiDraft
{
    /** @var array<string, MeasurementDraft> */
    public array $units = [];

    /**
     * @param  bool  $hasPolarity  whether it is known which form its targets have
     * @param  list<Split>  $splits
     * @param  list<string>  $parts  that are typed and add up to it
     */
    public function __construct(
        public readonly string $code,
        public readonly Row $row,
        public readonly Definition $definition,
        public readonly bool $hasPolarity,
        public readonly array $splits = [],
        public readonly array $parts = [],
    ) {}
}
