<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\ActionView;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What deserves attention in a unit and below it, the most serious first.')]
final readonly class ExceptionsPage
{
    /**
     * @param  list<ExceptionItem>  $items
     * @param  list<GoodNews>  $goodNews
     * @param  list<ActionView>  $overdue
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ExceptionItem'), description: 'the 200 most serious')] public array $items,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/GoodNews'), description: 'up to 60')] public array $goodNews,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Action'), description: 'actions that should have been done by today')] public array $overdue,
        #[OA\Property(description: 'how many deserve attention, shown or not')] public int $total,
    ) {}
}
