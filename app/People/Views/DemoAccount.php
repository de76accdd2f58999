<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'An account of the demonstration, to sign in with.')]
final readonly class DemoAccount
{
    public function __construct(
        #[OA\Property] public string $email,
        #[OA\Property] public string $password,
        #[OA\Property] public string $name,
        #[OA\Property] public string $role,
    ) {}
}
