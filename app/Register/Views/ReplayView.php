<?php

declare(strict_types=1);

namespace App\Register\Views;

use App\Views\CountsView;
use App\Views\ZonesView;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Replay', description: 'The latest periods as they were judged, and as they would have been.')]
final readonly class ReplayView
{
    /** @param  list<ReplayPeriod>  $periods */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ReplayPeriod'), description: 'earliest first')] public array $periods,
        #[OA\Property(ref: '#/components/schemas/Counts')] public CountsView $asIs,
        #[OA\Property(ref: '#/components/schemas/Counts')] public CountsView $asTyped,
        #[OA\Property(description: 'what would change, in a sentence')] public string $words,
        #[OA\Property(description: 'how the latest period with a reading would be judged, in a sentence')] public string $latest,
        #[OA\Property] public ?ZonesView $zones,
    ) {}
}
