<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How a unit has ranked over months.')]
final readonly class RankLine
{
    /** @param  list<int|null>  $ranks */
    public function __construct(
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property(items: new OA\Items(type: 'integer', nullable: true), description: 'one a month; null where it had no figure')] public array $ranks,
    ) {}
}
