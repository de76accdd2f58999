<?php

declare(strict_types=1);

namespace App\Sources\Views;

use Kybernet\Core\Records\FieldType;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SourceField', description: 'A field of the records of a set.')]
final readonly class SourceField
{
    /** @param  list<string>  $examples */
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property(enum: FieldType::class, description: 'null where it is calculated')] public ?string $type,
        #[OA\Property(description: 'what it is calculated by')] public ?string $expression,
        #[OA\Property(description: 'what it is, in words')] public string $meaning,
        #[OA\Property(description: 'few see it')] public bool $sensitive,
        #[OA\Property(description: 'the column of the file that holds it')] public ?string $column,
        #[OA\Property(enum: ['', 'day-first', 'month-first', 'comma'], description: 'how its dates or numbers are written there')] public string $form,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $examples,
    ) {}
}
