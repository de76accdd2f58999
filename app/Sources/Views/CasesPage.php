<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CasesPage', description: 'The records behind a figure as cases over their values.')]
final readonly class CasesPage
{
    /**
     * @param  list<string>  $fields
     * @param  list<CaseRow>  $rows
     */
    public function __construct(
        #[OA\Property] public string $noun,
        #[OA\Property(description: 'what the value is: a field or an expression')] public string $of,
        #[OA\Property(description: 'in what it is counted')] public string $measure,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'by which rows can be made')] public array $fields,
        #[OA\Property(description: 'there are steps to be shown under each other')] public bool $steps,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CaseRow'))] public array $rows,
        #[OA\Property(description: 'the goal as it is; null where there is none')] public ?string $goal,
        #[OA\Property(description: 'up to it is good, and not from it on')] public bool $atMost,
        #[OA\Property(ref: '#/components/schemas/GoalTried', nullable: true)] public ?GoalTried $now,
        #[OA\Property(ref: '#/components/schemas/GoalTried', nullable: true)] public ?GoalTried $tried,
        #[OA\Property(description: 'what it is about is sensitive, and not for this person')] public bool $masked,
    ) {}
}
