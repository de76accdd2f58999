<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What is wrong with a formula, and what it gives for the latest periods.')]
final readonly class FormulaCheck
{
    /** @param  list<FormulaValue>  $values */
    public function __construct(
        #[OA\Property(description: 'in words; blank where nothing is wrong')] public string $problem,
        #[OA\Property(description: 'place of the problem in the text, counted from 1; null where it is in no one place')] public ?int $place,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/FormulaValue'), description: 'earliest first')] public array $values,
    ) {}
}
