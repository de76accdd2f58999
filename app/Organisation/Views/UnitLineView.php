<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use App\Organisation\PlannedUnit;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ListedUnit', description: 'A unit as a list would make it.')]
final readonly class UnitLineView
{
    private function __construct(
        #[OA\Property(description: 'of the list, from 1')] public int $line,
        #[OA\Property] public string $name,
        #[OA\Property] public string $code,
        #[OA\Property] public string $kind,
        #[OA\Property(description: '0 for the organisation itself')] public int $depth,
        #[OA\Property(description: 'made by the list, there already, or refused', enum: ['new', 'there', 'refused'])] public string $state,
        #[OA\Property(description: 'why it is refused')] public string $problem,
    ) {}

    public static function of(PlannedUnit $unit): self
    {
        return new self($unit->line, $unit->name, $unit->code, $unit->kind, $unit->depth, $unit->isThere ? 'there' : ($unit->isNew() ? 'new' : 'refused'), $unit->problem);
    }
}
