<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SplitView', description: 'A figure in its parts.')]
final readonly class SplitView
{
    /** @param  list<SplitPartView>  $parts */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/SplitPart'), description: 'by falling figure')] public array $parts,
        #[OA\Property(description: 'the sum of target shares, in %; null where there are none')] public ?string $wanted,
        #[OA\Property(description: 'the parts add up to the figure')] public bool $adds,
    ) {}
}
