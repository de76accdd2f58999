<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Measurement', description: 'A unit where a KPI is measured.', required: ['unit', 'weight', 'owner', 'from', 'to', 'gathered', 'rule'])]
final readonly class MeasurementView
{
    public function __construct(
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property(description: 'in roll-ups and in the ranking of exceptions')] public float $weight,
        #[OA\Property(description: 'who enters its figures')] public ?int $owner,
        #[OA\Property(description: 'its first month, 2026-04; null for always')] public ?string $from,
        #[OA\Property(description: 'its last month')] public ?string $to,
        #[OA\Property(description: 'worked out from the units below')] public bool $gathered,
        #[OA\Property(ref: '#/components/schemas/Rule', nullable: true, description: 'a rule set of this unit alone')] public ?RuleView $rule,
    ) {}
}
