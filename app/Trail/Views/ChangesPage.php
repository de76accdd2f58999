<?php

declare(strict_types=1);

namespace App\Trail\Views;

use App\Views\PersonView;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Changes, newest first.')]
final readonly class ChangesPage
{
    /**
     * @param  list<Change>  $changes
     * @param  list<PersonView>  $people
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Change'))] public array $changes,
        #[OA\Property(description: 'whether there are older ones')] public bool $more,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Person'), description: 'who can be filtered by')] public array $people,
    ) {}
}
