<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'UnitPage', description: 'One unit by itself.')]
final readonly class UnitPage
{
    /**
     * @param  list<string>  $formerCodes
     * @param  list<string>  $way
     * @param  list<MeasuredThere>  $measured
     * @param  list<AnsweringPerson>  $people
     * @param  list<StoodBefore>  $stood
     * @param  list<MapShape>  $shapes
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $kind,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'which still find it')] public array $formerCodes,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'names from the organisation down to the unit above it')] public array $way,
        #[OA\Property(description: 'the first month in which nothing is measured there any longer')] public ?string $retired,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MeasuredThere'))] public array $measured,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/AnsweringPerson'), description: 'the nearest first')] public array $people,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/StoodBefore'), description: 'the latest first')] public array $stood,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/MapShape'), description: 'its own and those beside it; where it has none, those below it')] public array $shapes,
        #[OA\Property(description: 'may be changed by the person')] public bool $changes,
    ) {}
}
