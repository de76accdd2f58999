<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Arrangement', description: 'For whom a briefing is.')]
final readonly class ArrangementView
{
    /** @param  list<ReaderView>  $people */
    public function __construct(
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property(enum: ['unit', 'people'])] public string $audience,
        #[OA\Property] public int $version,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/BriefingReader'))] public array $people,
    ) {}
}
