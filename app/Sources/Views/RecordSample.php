<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecordSample', description: 'A file from which a record set can be made, as it is understood.')]
final readonly class RecordSample
{
    /** @param  list<SourceField>  $fields */
    public function __construct(
        #[OA\Property(description: 'by which the file is found again')] public string $upload,
        #[OA\Property] public string $file,
        #[OA\Property(description: 'how many records were looked at')] public int $records,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/SourceField'))] public array $fields,
        #[OA\Property(description: 'the field that seems to tell records apart')] public ?string $key,
        #[OA\Property(description: 'the field that seems to name units')] public ?string $unitField,
        #[OA\Property(description: 'the first day of any date')] public ?string $first,
        #[OA\Property(description: 'the last day of any date that is over')] public ?string $last,
    ) {}
}
