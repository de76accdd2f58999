<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'The month sheet: what this user is to enter in a unit and below it.')]
final readonly class LogbookPage
{
    /** @param  list<LogbookRow>  $rows */
    public function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(description: 'a month that has not begun takes no readings')] public bool $open,
        #[OA\Property(description: 'nothing in it can change until somebody reopens it')] public bool $closed,
        #[OA\Property(description: 'the day on which the last reading is due, 2026-09-08')] public ?string $due,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/LogbookRow'))] public array $rows,
    ) {}
}
