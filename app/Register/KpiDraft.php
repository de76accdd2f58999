<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellValue;
use Kybernet\Core\Workbook\KpiEntry;

/**
 * A definition that passed every check and can be saved.
 */
final readonly class KpiDraft
{
    /**
     * @param  KpiEntry  $entry  with all dated rule sets, where it is measured, and no figures
     * @param  array<string, array<string, array{CellValue, CellValue|null}>>  $targets  what is wanted (a blank one removes) and what was seen (null: whatever stands), by unit and period
     * @param  array<string, array{CellValue, CellValue|null}>  $yearTargets  the same for the financial year, by unit
     * @param  int  $year  in which that financial year starts
     * @param  int  $version  the version that was seen; 0 for a new KPI
     */
    public function __construct(
        public KpiEntry $entry,
        public array $targets,
        public array $yearTargets,
        public int $year,
        public int $version,
    ) {}
}
