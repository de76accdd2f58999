<?php

declare(strict_types=1);

namespace App\Sources\Views;

use App\Models\RecordLoad;
use Carbon\CarbonImmutable;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'LoadLine', description: 'A load of records.')]
final readonly class LoadLine
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(description: 'ISO 8601')] public string $at,
        #[OA\Property(enum: ['file', 'folder', 'address', 'query', 'sent'])] public string $way,
        #[OA\Property] public string $file,
        #[OA\Property(description: 'who brought it; null where it came by itself')] public ?string $by,
        #[OA\Property(enum: ['add', 'key', 'all'])] public string $mode,
        #[OA\Property(enum: ['mapping', 'reading', 'ready', 'applying', 'applied', 'undoing', 'undone', 'failed'])] public string $state,
        #[OA\Property(description: 'why it failed')] public string $problem,
        #[OA\Property(description: 'records read so far')] public int $progress,
        #[OA\Property] public int $brought,
        #[OA\Property] public int $added,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $same,
        #[OA\Property] public int $gone,
        #[OA\Property] public int $refused,
        #[OA\Property(description: 'it can be taken back')] public bool $undoable,
    ) {}

    public static function of(RecordLoad $load, ?string $by, bool $isUndoable): self
    {
        return new self(
            $load->id, CarbonImmutable::parse($load->applied_at ?? $load->created_at)->utc()->toIso8601ZuluString(), $load->way, $load->file, $by, $load->mode, $load->state, $load->problem,
            $load->progress, $load->brought, $load->added, $load->changed, $load->same, $load->gone, $load->refused, $isUndoable,
        );
    }
}
