<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Views\PersonView;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Account', description: 'What a person keeps of their own.')]
final readonly class AccountView
{
    /**
     * @param  list<SessionLine>  $sessions
     * @param  list<StandInView>  $standIns
     * @param  list<PersonView>  $people
     */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(description: 'since when a second factor is asked for, ISO 8601; null where none is')] public ?string $secondFactor,
        #[OA\Property(description: 'recovery codes that are left')] public int $recoveryCodes,
        #[OA\Property(description: 'whether everybody here has to have one')] public bool $secondFactorNeeded,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/OpenSession'))] public array $sessions,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/StandIn'), description: 'of theirs, and those in which they answer for somebody; past ones are left out')] public array $standIns,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Person'), description: 'who could stand in')] public array $people,
    ) {}
}
