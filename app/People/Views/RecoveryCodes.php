<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecoveryCodes', description: 'Codes for the day when the device is lost, each for one time.')]
final readonly class RecoveryCodes
{
    /** @param  list<string>  $codes */
    public function __construct(#[OA\Property(items: new OA\Items(type: 'string'))] public array $codes) {}
}
