<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What became of a cell that was typed.')]
final readonly class CellOutcome
{
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in its unit')] public int $measurement,
        #[OA\Property] public string $period,
        #[OA\Property(enum: ['saved', 'same', 'refused', 'conflict'])] public string $outcome,
        #[OA\Property(description: 'what stands there now, as this user would type it; of a refused cell what was typed')]
        public string $typed,
        #[OA\Property(description: 'why it was refused, or who was faster')] public string $reason,
    ) {}

    public static function saved(int $measurement, string $period, string $typed): self
    {
        return new self($measurement, $period, 'saved', $typed, '');
    }

    public static function same(int $measurement, string $period, string $typed): self
    {
        return new self($measurement, $period, 'same', $typed, '');
    }

    public static function refused(int $measurement, string $period, string $typed, string $reason): self
    {
        return new self($measurement, $period, 'refused', $typed, $reason);
    }

    public static function conflict(int $measurement, string $period, string $typed, string $by): self
    {
        return new self($measurement, $period, 'conflict', $typed, $typed === '' ? "{$by} emptied this cell in the meantime." : "{$by} entered {$typed} in the meantime.");
    }
}
