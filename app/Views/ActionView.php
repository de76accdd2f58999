<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Action', description: 'What was agreed, after which period, and whether it worked.')]
final readonly class ActionView
{
    /** @param  list<WakePoint>  $wake */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(description: 'identity of the KPI in its unit')] public int $measurement,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property(description: 'the period that caused it')] public string $period,
        #[OA\Property] public string $what,
        #[OA\Property] public string $who,
        #[OA\Property(description: 'a day, 2026-09-30')] public string $due,
        #[OA\Property(enum: ['open', 'done', 'dropped'])] public string $state,
        #[OA\Property(description: 'what came of it, or why it was dropped')] public string $outcome,
        #[OA\Property(description: 'the day on which it was done or dropped')] public ?string $ended,
        #[OA\Property] public bool $overdue,
        #[OA\Property(description: 'whether this user may follow it up')] public bool $mine,
        #[OA\Property(description: 'send it back to change the action')] public int $version,
        #[OA\Property(ref: StatusSchema::REF, description: 'in the period that caused it')] public string $statusThen,
        #[OA\Property] public ?Shown $figureThen,
        #[OA\Property(ref: StatusSchema::REF, description: 'in the latest period')] public string $statusNow,
        #[OA\Property] public ?Shown $figureNow,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/WakePoint'), description: 'from the period that caused it on')] public array $wake,
    ) {}
}
