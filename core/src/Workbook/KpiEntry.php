<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Records\Split;

/**
 * A KPI: what it is called and how it is judged.
 */
final readonly class KpiEntry
{
    /**
     * @param  bool  $isScaled  shown in thousands, millions or billions where it grows large
     * @param  string|null  $department  code of the unit that answers for it
     * @param  string|null  $objective  code of the objective it serves
     * @param  list<string>  $drivers  codes of the KPIs that drive it
     * @param  array<string, string>  $texts  what a colour means for it, by colour
     * @param  list<MeasurementEntry>  $units
     * @param  list<Split>  $splits
     * @param  list<string>  $parts  that are typed and add up to it
     */
    public function __construct(
        public string $code,
        public string $name,
        public ?string $purpose,
        public ?string $level,
        public bool $isScaled,
        public ?string $department,
        public ?string $theme,
        public ?string $objective,
        public array $drivers,
        public array $texts,
        public Definition $definition,
        public array $units,
        public Sourcing $sourcing = new Sourcing,
        public array $splits = [],
        public array $parts = [],
    ) {}
}
