<?php

declare(strict_types=1);

namespace App\Review\Views;

use Kybernet\Core\Status\Movement;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How many KPIs changed colour since the previous month.')]
final readonly class Moved
{
    private function __construct(
        #[OA\Property] public int $worse,
        #[OA\Property] public int $better,
        #[OA\Property] public int $recovered,
    ) {}

    /** @param  list<Movement>  $movements */
    public static function of(array $movements): self
    {
        $count = fn (Movement $kind): int => count(array_keys($movements, $kind, true));

        return new self($count(Movement::Worse), $count(Movement::Better), $count(Movement::Recovered));
    }
}
