<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A month before it is closed, or as it was closed.')]
final readonly class ClosingPage
{
    /**
     * @param  list<ClosingUnit>  $units
     * @param  list<ClosingItem>  $missing
     * @param  list<ClosingItem>  $unexplained
     * @param  list<ClosingItem>  $unusual
     * @param  list<LateLine>  $late
     */
    public function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(description: 'whether the month is over')] public bool $over,
        #[OA\Property(description: 'whether this user may close and reopen')] public bool $mayClose,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ClosingUnit'), description: 'the unit and all below it')] public array $units,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ClosingItem'))] public array $missing,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ClosingItem'))] public array $unexplained,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ClosingItem'))] public array $unusual,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/LateLine'), description: 'what came in after the month was closed')] public array $late,
    ) {}
}
