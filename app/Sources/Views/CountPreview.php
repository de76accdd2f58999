<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CountPreview', description: 'What a KPI would be, as it is being defined.')]
final readonly class CountPreview
{
    /**
     * @param  list<PreviewMonth>  $months
     * @param  list<int>  $leftOut
     * @param  list<string>  $fields
     * @param  list<list<string|null>>  $rows
     * @param  list<PreviewSplit>  $splits
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/PreviewMonth'), description: 'the last thirteen periods')] public array $months,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'of the latest period, how many records each condition leaves out')] public array $leftOut,
        #[OA\Property(description: 'of the latest period, how many have no value')] public int $empty,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $fields,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(type: 'string', nullable: true)), description: 'the first records of the latest period; last stands what is taken of each')] public array $rows,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/PreviewSplit'), description: 'of the latest period, its parts; those that are not said rightly yet are left out')] public array $splits,
        #[OA\Property(description: 'what names no unit, of those that are most')] public ?string $unknown,
        #[OA\Property(description: 'how many different names are known units')] public int $known,
        #[OA\Property(description: 'how many different names there are')] public int $names,
    ) {}
}
