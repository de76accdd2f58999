<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a file of definitions would change.')]
final readonly class DefinitionPreview
{
    /** @param  list<DefinitionOutcome>  $rows */
    public function __construct(
        #[OA\Property(description: 'names the file when it is applied')] public string $upload,
        #[OA\Property] public string $file,
        #[OA\Property(description: 'whether it was applied')] public bool $applied,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/DefinitionOutcome'))] public array $rows,
    ) {}
}
