<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'LoadPage', description: 'A load: how far it is, and what it brings.')]
final readonly class LoadPage
{
    /**
     * @param  list<Refusal>  $refusals
     * @param  list<string>  $fields
     * @param  list<list<string|null>>  $rows
     */
    public function __construct(
        #[OA\Property] public LoadLine $load,
        #[OA\Property(description: 'code of the set')] public string $set,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RecordRefusal'), description: 'the first of them')] public array $refusals,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'that the file brings')] public array $fields,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(type: 'string', nullable: true)), description: 'the first records, as they are understood')] public array $rows,
    ) {}
}
