<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecordColumn', description: 'A field of the records that are shown.')]
final readonly class RecordColumn
{
    public function __construct(
        #[OA\Property(description: '= for what the figure is taken of, where that is no field')] public string $name,
        #[OA\Property(enum: ['text', 'number', 'date', 'time', 'yesno'])] public string $type,
        #[OA\Property(description: 'what it is, in words')] public string $meaning,
        #[OA\Property(description: 'few see it, and no file has it')] public bool $sensitive,
        #[OA\Property(description: 'it is hidden from this person')] public bool $masked,
        #[OA\Property(description: 'what the figure is about')] public bool $value,
    ) {}
}
