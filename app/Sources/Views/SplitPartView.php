<?php

declare(strict_types=1);

namespace App\Sources\Views;

use App\Views\Shown;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SplitPart')]
final readonly class SplitPartView
{
    public function __construct(
        #[OA\Property(description: 'null for what has an empty field')] public ?string $part,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'of the whole, in %')] public ?string $share,
        #[OA\Property(description: 'in points, against its share in the span before')] public ?string $moved,
        #[OA\Property(description: 'the share that it should have, in %')] public ?string $target,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
    ) {}
}
