<?php

declare(strict_types=1);

namespace App\Register\Views;

use App\Views\PersonView;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'All KPIs, and what a definition can choose from.')]
final readonly class RegisterPage
{
    /**
     * @param  list<RegisterLine>  $kpis
     * @param  list<ListItem>  $themes
     * @param  list<ListItem>  $objectives
     * @param  list<PersonView>  $people
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RegisterLine'))] public array $kpis,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ListItem'))] public array $themes,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ListItem'))] public array $objectives,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Person'))] public array $people,
    ) {}
}
