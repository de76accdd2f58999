<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Models\User;
use Carbon\CarbonImmutable;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Somebody with an account, or invited to have one.')]
final readonly class PersonLine
{
    /** @param  list<RoleView>  $roles */
    private function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/HeldRole'))] public array $roles,
        #[OA\Property(enum: ['invited', 'in', 'blocked'])] public string $state,
        #[OA\Property(description: 'the moment they were seen last, ISO 8601')] public ?string $seen,
        #[OA\Property(description: 'when they asked to be let in again, ISO 8601; a link answers it')] public ?string $asked,
        #[OA\Property(description: 'whether a second factor is asked for')] public bool $secondFactor,
        #[OA\Property(description: 'KPIs whose figures are theirs to enter')] public int $kpis,
    ) {}

    public static function of(User $person, int $kpis): self
    {
        return new self(
            $person->id,
            $person->name,
            $person->email,
            array_values($person->grants->map(RoleView::of(...))->all()),
            match (true) {
                $person->blocked_at !== null => 'blocked',
                $person->joined_at === null => 'invited',
                default => 'in',
            },
            $person->seen_at === null ? null : CarbonImmutable::parse($person->seen_at)->utc()->toIso8601ZuluString(),
            $person->asked_at === null ? null : CarbonImmutable::parse($person->asked_at)->utc()->toIso8601ZuluString(),
            $person->second_factor_since !== null,
            $kpis,
        );
    }
}
