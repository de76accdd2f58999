<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Models\Grant;
use App\Models\User;
use App\Organisation\Rights;
use App\Support\NumberSetting;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'User', description: 'The person who is signed in.')]
final readonly class UserView
{
    private function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(description: 'what they come to do, in words')] public string $role,
        #[OA\Property(description: 'code of the unit whose pages open first; blank where they may open none')] public string $unit,
        #[OA\Property(description: 'number setting')] public string $locale,
        #[OA\Property(description: 'in which months and days are written', enum: NumberSetting::DATE_LANGUAGES)] public string $dateLanguage,
        #[OA\Property(description: 'may change units, people and settings')] public bool $administers,
        #[OA\Property(description: 'may define KPIs')] public bool $defines,
        #[OA\Property(description: 'may change what holds for all KPIs, and many at once')] public bool $definesAll,
        #[OA\Property(description: 'may enter figures')] public bool $logs,
        #[OA\Property(description: 'sees every unit and figure')] public bool $seesAll,
        #[OA\Property(description: 'sees record sets')] public bool $sources,
        #[OA\Property(description: 'has to set up a second factor before anything else')] public bool $needsSecondFactor,
    ) {}

    public static function of(User $user, Rights $rights, bool $needsSecondFactor, bool $ownsRecords): self
    {
        $user->loadMissing('grants.unit');

        return new self(
            $user->name,
            $user->email,
            $user->grants->map(fn (Grant $grant): string => $grant->role->words().($grant->unit->parent_id === null ? '' : ", {$grant->unit->name}"))->implode('; '),
            $rights->home($user),
            $user->locale,
            $user->date_language,
            $rights->administers($user),
            $rights->analysesSomewhere($user),
            $rights->analysesAll($user),
            $rights->logs($user),
            $rights->seesAll($user),
            $ownsRecords || $rights->analysesSomewhere($user),
            $needsSecondFactor,
        );
    }
}
