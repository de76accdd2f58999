<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Beginning', description: 'What whoever begins an organisation can choose from.')]
final readonly class BeginningView
{
    /**
     * @param  list<string>  $timeZones
     * @param  list<string>  $currencies
     */
    public function __construct(
        #[OA\Property(description: 'whether the link works')] public bool $works,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'IANA names')] public array $timeZones,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'ISO 4217')] public array $currencies,
    ) {}
}
