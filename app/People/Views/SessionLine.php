<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'OpenSession', description: 'Where somebody is signed in.')]
final readonly class SessionLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: 'as far as it says, in words')] public string $device,
        #[OA\Property] public string $address,
        #[OA\Property(description: 'the moment of its last use, ISO 8601')] public string $used,
        #[OA\Property(description: 'the one that asks')] public bool $here,
    ) {}
}
