<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Briefings\Content\PieceKind;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PieceKind', description: 'A kind of piece, and what it can be asked for.')]
final readonly class KindView
{
    /**
     * @param  array<string, non-empty-list<string>>  $choices
     * @param  list<string>  $parts
     * @param  list<string>  $more
     */
    private function __construct(
        #[OA\Property(enum: PieceKind::class)] public string $kind,
        #[OA\Property] public int $mostKpis,
        #[OA\Property(description: 'it says nothing until a KPI is chosen')] public bool $needsKpi,
        #[OA\Property(description: 'its figures count among those that a reader takes in')] public bool $ofFigures,
        #[OA\Property] public bool $hasText,
        #[OA\Property(description: 'it can stand on a unit or a span of its own')] public bool $pinned,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'array', items: new OA\Items(type: 'string')), description: 'what can be chosen, the first one where nobody has')] public array|object $choices,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'parts that are shown to begin with')] public array $parts,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'other parts')] public array $more,
        #[OA\Property(description: 'in twelfths, to begin with')] public int $width,
    ) {}

    /** @return list<self> */
    public static function all(): array
    {
        return array_map(fn (PieceKind $kind): self => new self($kind->value, $kind->mostKpis(), $kind->needsKpi(), $kind->isOfFigures(), $kind->hasText(), $kind->isPinned(), (object) $kind->choices(), $kind->parts()[0], $kind->parts()[1], $kind->width()), PieceKind::cases());
    }
}
