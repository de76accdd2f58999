<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\ReplayView;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What the latest periods of a KPI would have been under other limits and targets. Nothing of it is kept.')]
final readonly class WhatIf
{
    /** @param  object  $targets  by period */
    public function __construct(
        #[OA\Property(enum: Reference::class)] public string $reference,
        #[OA\Property(enum: Deviation::class)] public string $measure,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(description: 'as they are in force')] public TriedLimits $now,
        #[OA\Property(description: 'as they are tried')] public TriedLimits $tried,
        #[OA\Property(description: 'by how much targets are moved, in %, as this user would type it; blank where they are not')] public string $moved,
        #[OA\Property(description: 'the target of each period, as this user would type it; blank where each has its own')] public string $same,
        #[OA\Property(description: 'whether the limits are those of this unit alone')] public bool $own,
        #[OA\Property(
            type: 'object',
            description: 'what would have to be set for it, by period of the financial year: as this user would type it; nothing where targets stay as they are',
            additionalProperties: new OA\AdditionalProperties(type: 'string'),
        )]
        public object $targets,
        #[OA\Property(ref: '#/components/schemas/Replay')] public ReplayView $replay,
    ) {}
}
