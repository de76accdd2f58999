<?php

declare(strict_types=1);

namespace App\Import\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A file of figures, how its columns are understood, and what it would change or has changed.')]
final readonly class ImportPage
{
    /**
     * @param  list<string>  $sheets
     * @param  list<int>  $lines
     * @param  list<ImportColumn>  $columns
     * @param  list<ImportCell>  $cells
     */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(description: 'name of the file')] public string $file,
        #[OA\Property(enum: ['mapping', 'reading', 'ready', 'applying', 'applied', 'undoing', 'undone', 'failed'])] public string $state,
        #[OA\Property(description: 'why it cannot go on, in words; blank where it can')] public string $problem,
        #[OA\Property] public int $rowsRead,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'sheets of the file; none where it is one table')] public array $sheets,
        #[OA\Property(description: 'the sheet that is read')] public string $sheet,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'lines in which the columns may be named')] public array $lines,
        #[OA\Property(description: 'the line in which they are')] public int $head,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ImportColumn'))] public array $columns,
        #[OA\Property(ref: '#/components/schemas/ImportCounts')] public ImportCounts $counts,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ImportCell'), description: 'a page of what it says')] public array $cells,
        #[OA\Property(description: 'whether there are more pages')] public bool $more,
    ) {}
}
