<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CaseRow', description: 'Cases of one kind, or of one step, over their values.')]
final readonly class CaseRow
{
    /**
     * @param  list<string>  $values
     * @param  list<CaseBin>  $bins
     */
    public function __construct(
        #[OA\Property(description: 'null where the field is empty')] public ?string $name,
        #[OA\Property(description: 'what it is, in words')] public string $meaning,
        #[OA\Property] public int $cases,
        #[OA\Property] public ?string $mean,
        #[OA\Property] public ?string $median,
        #[OA\Property(description: 'nine in ten are at most this')] public ?string $ninth,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'of each case, in order; none where there are too many')] public array $values,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CaseBin'), description: 'where there are too many to be shown one by one')] public array $bins,
        #[OA\Property(description: 'it is what the figure is taken of, so that the goal stands in it')] public bool $goal,
    ) {}
}
