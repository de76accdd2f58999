<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecordPage', description: 'The records behind a figure.')]
final readonly class RecordPage
{
    /**
     * @param  list<RecordColumn>  $columns
     * @param  list<list<string|null>>  $rows
     */
    public function __construct(
        #[OA\Property(description: 'what the set is called')] public string $set,
        #[OA\Property(description: 'what one calls several of them')] public string $noun,
        #[OA\Property(description: 'how many there are, of those searched for')] public int $total,
        #[OA\Property(description: 'how many the figure counts; null where it is gathered or put together otherwise')] public ?int $counted,
        #[OA\Property(description: 'of a share, how many of them meet what it is of')] public ?int $met,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RecordColumn'))] public array $columns,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(type: 'string', nullable: true)), description: 'a page of them; last stands whether it meets what a share is of')] public array $rows,
        #[OA\Property(description: 'the figure is a share')] public bool $share,
    ) {}
}
