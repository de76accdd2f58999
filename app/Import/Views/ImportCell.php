<?php

declare(strict_types=1);

namespace App\Import\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One cell of the file, held against what is there.')]
final readonly class ImportCell
{
    public function __construct(
        #[OA\Property] public int $line,
        #[OA\Property(description: 'the letters of its column')] public string $place,
        #[OA\Property(description: 'which KPI where')] public string $label,
        #[OA\Property] public string $layer,
        #[OA\Property(description: 'blank where it could not be read')] public string $period,
        #[OA\Property(description: 'as it stands in the file')] public string $typed,
        #[OA\Property(description: 'what stood there when the file was read')] public string $was,
        #[OA\Property(enum: ['new', 'changed', 'same', 'refused'])] public string $outcome,
        #[OA\Property(description: 'why it is refused')] public string $reason,
    ) {}
}
