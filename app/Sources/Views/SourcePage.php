<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SourcePage', description: 'A record set: its fields, how its records come in, and who counts from it.')]
final readonly class SourcePage
{
    /**
     * @param  list<SourceField>  $fields
     * @param  list<UnknownName>  $unknown
     * @param  list<int>  $owners
     * @param  list<CountedThere>  $kpis
     * @param  list<LoadLine>  $loads
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $noun,
        #[OA\Property(description: 'code of the unit whose records they are')] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property] public string $key,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/SourceField'))] public array $fields,
        #[OA\Property] public ?string $unitField,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public object $unitNames,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/UnknownName'))] public array $unknown,
        #[OA\Property] public ?string $coversFrom,
        #[OA\Property] public ?string $coversTo,
        #[OA\Property(description: 'each load says up to when it is complete')] public bool $coversByLoads,
        #[OA\Property(enum: ['file', 'folder', 'address', 'query', 'sent'])] public string $way,
        #[OA\Property(enum: ['add', 'key', 'all'])] public string $mode,
        #[OA\Property(items: new OA\Items(type: 'integer'))] public array $owners,
        #[OA\Property] public int $records,
        #[OA\Property] public bool $retired,
        #[OA\Property] public int $version,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CountedThere'))] public array $kpis,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/LoadLine'), description: 'the latest first')] public array $loads,
        #[OA\Property(description: 'may be changed by the person')] public bool $changes,
    ) {}
}
