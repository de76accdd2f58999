<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Like units beside each other on several KPIs.')]
final readonly class ComparePage
{
    /**
     * @param  list<CompareKind>  $kinds
     * @param  list<CompareUnit>  $units
     * @param  list<CompareKpi>  $kpis
     * @param  list<CompareOffer>  $offered
     * @param  list<ComparePair>  $pairs
     */
    public function __construct(
        #[OA\Property(description: 'what the units are; blank where nothing can be compared')] public string $kind,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CompareKind'), description: 'those with the most units first')] public array $kinds,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CompareUnit'), description: 'in the order of the register')] public array $units,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CompareKpi'))] public array $kpis,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CompareOffer'), description: 'on which they can be compared')] public array $offered,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ComparePair'), description: 'of those that are compared')] public array $pairs,
        #[OA\Property] public ?RecurringUnit $recurring,
    ) {}
}
