<?php

declare(strict_types=1);

namespace App\Compare\Views;

use Kybernet\Core\Compare\Association;
use Kybernet\Core\Compare\Moving;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How closely two of the KPIs go together over the units.')]
final readonly class ComparePair
{
    public function __construct(
        #[OA\Property(description: 'code of a KPI')] public string $one,
        #[OA\Property(description: 'code of another')] public string $other,
        #[OA\Property(description: 'product-moment correlation, −1 to 1')] public float $pearson,
        #[OA\Property(description: 'of the ranks, −1 to 1')] public float $spearman,
        #[OA\Property(description: 'how many units have both')] public int $pairs,
        #[OA\Property(enum: Moving::class)] public string $moving,
        #[OA\Property(description: 'chance alone would hardly make it')] public bool $hardlyChance,
        #[OA\Property(description: 'the ranks say something else: a few that lie far out make the difference')] public bool $byFew,
    ) {}

    public static function of(string $one, string $other, Association $association): self
    {
        return new self($one, $other, $association->pearson, $association->spearman, $association->pairs, $association->moving->value, $association->isHardlyChance(), $association->isByFew());
    }
}
