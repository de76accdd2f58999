<?php

declare(strict_types=1);

namespace App\Sources\Views;

use App\Models\RecordLoad;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SentLoad', description: 'Records that a program has sent.')]
final readonly class SentLoad
{
    private function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(enum: ['mapping', 'reading', 'ready', 'applying', 'applied', 'undoing', 'undone', 'failed'])] public string $state,
        #[OA\Property] public string $problem,
        #[OA\Property] public int $brought,
        #[OA\Property] public int $added,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $same,
        #[OA\Property] public int $refused,
    ) {}

    public static function of(RecordLoad $load): self
    {
        return new self($load->id, $load->state, $load->problem, $load->brought, $load->added, $load->changed, $load->same, $load->refused);
    }
}
