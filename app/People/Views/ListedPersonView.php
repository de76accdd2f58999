<?php

declare(strict_types=1);

namespace App\People\Views;

use App\People\ListedPerson;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ListedPerson', description: 'A person of a list, and what taking it would do.')]
final readonly class ListedPersonView
{
    /** @param  list<RoleView>  $roles */
    private function __construct(
        #[OA\Property] public string $email,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/HeldRole'))] public array $roles,
        #[OA\Property(enum: ['new', 'changed', 'same', 'refused'])] public string $what,
        #[OA\Property(description: 'what is wrong; blank where nothing is')] public string $problem,
    ) {}

    public static function of(ListedPerson $person): self
    {
        return new self($person->wanted->email, $person->wanted->name, array_map(fn (array $held): RoleView => new RoleView($held[0]->value, $held[1]), $person->wanted->roles), $person->what, $person->problem);
    }
}
