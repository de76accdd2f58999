<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Units, KPIs and months, two of them crossed for one of the third.')]
final readonly class MatrixPage
{
    /**
     * @param  list<MatrixLine>  $rows
     * @param  list<MatrixLine>  $columns
     * @param  list<list<MatrixCell|null>>  $cells
     * @param  list<MatrixLine>  $kpis
     */
    public function __construct(
        #[OA\Property(enum: ['units-months', 'units-kpis', 'kpis-months'])] public string $crossing,
        #[OA\Property(description: 'code of the KPI that is crossed; blank for the roll-up of the units')] public string $kpi,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MatrixLine'))] public array $rows,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MatrixLine'))] public array $columns,
        #[OA\Property(items: new OA\Items(type: 'array', items: new OA\Items(oneOf: [new OA\Schema(ref: '#/components/schemas/MatrixCell'), new OA\Schema(type: 'null')])), description: 'row by row; null where there is nothing')]
        public array $cells,
        #[OA\Property(ref: StatusSchema::REF, description: 'over all cells')] public ?string $status,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MatrixLine'), description: 'those that can be crossed with units and months')] public array $kpis,
    ) {}
}
