<?php

declare(strict_types=1);

namespace App\Exchange\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a workbook of an organisation would do, or did.')]
final readonly class BookPreview
{
    /** @param  list<TakenSheet>  $sheets */
    public function __construct(
        #[OA\Property] public string $upload,
        #[OA\Property] public bool $applied,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/TakenSheet'))] public array $sheets,
    ) {}
}
