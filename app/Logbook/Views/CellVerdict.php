<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use App\Logbook\TypedCell;
use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How a typed cell would be read and judged.')]
final readonly class CellVerdict
{
    private function __construct(
        #[OA\Property(description: 'identity of the KPI in its unit')] public int $measurement,
        #[OA\Property] public string $period,
        #[OA\Property(description: 'as it was understood; of a refused cell as it was typed')] public string $typed,
        #[OA\Property(description: 'g, a, r, or blank')] public string $status,
        #[OA\Property(description: 'why it is refused; blank where it is not')] public string $refused,
        #[OA\Property(description: 'asked where the figure is unusual; blank where it is not')] public string $question,
    ) {}

    public static function refused(TypedCell $cell, string $reason): self
    {
        return new self($cell->measurement, $cell->period, $cell->typed, '', $reason, '');
    }

    public static function sound(TypedCell $cell, string $typed, ?Status $status, string $question): self
    {
        return new self($cell->measurement, $cell->period, $typed, GridRow::LETTERS[$status->value ?? ''] ?? '', '', $question);
    }
}
