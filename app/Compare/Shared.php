<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\CompareKind;
use App\Figures\MeasurementFacts;

/**
 * Units of one kind and the KPIs that they share.
 */
final readonly class Shared
{
    /**
     * @param  string  $kind  of the units; blank where there are none
     * @param  list<CompareKind>  $kinds  all that could be compared, those with the most units first
     * @param  array<int|string, non-empty-array<int, int>>  $measured  by code of the KPI its measurements by unit; what most of the units share stands first, each part in register order
     * @param  array<int|string, MeasurementFacts>  $facts  what each KPI is, by code
     */
    public function __construct(public string $kind, public array $kinds, public array $measured, public array $facts) {}

    /** @return array<int, int> measurements by unit; none where the KPI is not shared */
    public function of(string $code): array
    {
        return $this->measured[$code] ?? [];
    }
}
