<?php

declare(strict_types=1);

namespace App\Actions;

use Kybernet\Core\Status\RuleSet;

/**
 * A definition that passed every check and can be saved.
 */
final readonly class KpiDraft
{
    /**
     * @param  array<string, mixed>  $attributes  columns of the KPI itself
     * @param  RuleSet|null  $rule  null for a KPI that is only tracked, or not yet judged
     * @param  int|null  $owner  who enters its figures
     * @param  list<int>  $units  where it is measured
     * @param  array<int, array<string, string|null>>  $targets  by unit and month; null removes
     * @param  int  $version  the version that was seen; 0 for a new KPI
     */
    public function __construct(
        public array $attributes,
        public ?string $theme,
        public ?RuleSet $rule,
        public ?int $owner,
        public array $units,
        public array $targets,
        public int $version,
    ) {}
}
