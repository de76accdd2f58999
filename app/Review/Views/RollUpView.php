<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RollUp', description: 'How the status of a unit follows from what is directly under it.')]
final readonly class RollUpView
{
    /** @param  list<RollUpMember>  $members */
    public function __construct(
        #[OA\Property(description: 'the method in words')] public string $method,
        #[OA\Property(description: '0 (all red) to 2 (all green)')] public ?float $score,
        #[OA\Property(description: 'share of the weight that is judged, 0 to 1')] public ?float $coverage,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RollUpMember'))] public array $members,
    ) {}
}
