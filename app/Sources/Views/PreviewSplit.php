<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How many records of the latest period are in each part of a split.')]
final readonly class PreviewSplit
{
    /** @param  list<PreviewPart>  $parts */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/PreviewPart'), description: 'the largest first')] public array $parts,
    ) {}
}
