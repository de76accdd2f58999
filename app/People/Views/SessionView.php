<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Organisation\Views\UnitView;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Session', description: 'Who is signed in, and what every screen needs to know.')]
final readonly class SessionView
{
    /**
     * @param  list<UnitView>  $units
     * @param  list<DemoAccount>  $demo
     */
    public function __construct(
        #[OA\Property] public ?UserView $user,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Unit'), description: 'parents before children')]
        public array $units,
        #[OA\Property(description: 'the newest month that has a reading, 2026-08')] public string $period,
        #[OA\Property(description: 'the month that runs now: nothing can be entered beyond it')] public string $runningPeriod,
        #[OA\Property(description: '1 to 12')] public int $yearStartMonth,
        #[OA\Property(description: 'the first steps of an organisation are shown to who administers it')] public bool $firstSteps,
        #[OA\Property(description: 'nobody has begun an organisation here yet')] public bool $empty,
        #[OA\Property(description: 'the colour of the organisation on paper, #0b4a6f')] public ?string $accent,
        #[OA\Property(description: 'the address of its logo; null where there is none')] public ?string $logo,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/DemoAccount'), description: 'offered while nobody is signed in')]
        public array $demo,
    ) {}
}
