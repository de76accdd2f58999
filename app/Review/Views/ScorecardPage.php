<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\CountsView;
use App\Views\StatusSchema;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A unit on a span: its rows in groups, and the units below it.')]
final readonly class ScorecardPage
{
    /**
     * @param  list<ScorecardGroup>  $groups
     * @param  list<UnitLine>  $units
     */
    public function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property(description: 'the whole organisation, which shows the rows of its departments as well')] public bool $isWhole,
        #[OA\Property(ref: StatusSchema::REF, description: 'the roll-up of the unit')] public string $status,
        #[OA\Property(description: 'over the rows shown')] public CountsView $counts,
        #[OA\Property] public Moved $moved,
        #[OA\Property(description: 'readings that people owe for the chosen month and have not entered')] public int $missing,
        #[OA\Property(description: 'open actions of the unit and of those below it that should have been done by today')] public int $overdue,
        #[OA\Property(ref: '#/components/schemas/RollUp')] public RollUpView $rollUp,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ScorecardGroup'))] public array $groups,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/UnitLine'))] public array $units,
    ) {}
}
