<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One definition of the file.')]
final readonly class DefinitionOutcome
{
    /** @param  list<string>  $words */
    public function __construct(
        #[OA\Property(description: 'its line, or its place in a workbook')] public int $line,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['new', 'changed', 'same', 'refused'])] public string $outcome,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'what would change, or why it is refused')] public array $words,
    ) {}
}
