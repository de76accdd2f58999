<?php

declare(strict_types=1);

namespace App\Exchange\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What became of a reading that a program wrote.')]
final readonly class WrittenReading
{
    public function __construct(#[OA\Property(enum: ['saved', 'same'])] public string $outcome) {}
}
