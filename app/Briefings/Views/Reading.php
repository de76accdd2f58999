<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Pages that are read without an account, or laid out to be printed.')]
final readonly class Reading
{
    /**
     * @param  list<array<string, mixed>>  $pages
     * @param  array<string, string>  $units
     * @param  list<int>|null  $starts
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/BriefingPage'))] public array $pages,
        #[OA\Property(description: 'of a pack; blank where it is one page')] public string $title,
        #[OA\Property(description: 'in which numbers are written')] public string $locale,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'), description: 'names of units by code')] public array $units,
        #[OA\Property(description: 'a4 or a3 where it is to be printed')] public ?string $paper = null,
        #[OA\Property(items: new OA\Items(type: 'integer'), description: 'of a pack: on which page each part begins', nullable: true)] public ?array $starts = null,
        #[OA\Property(description: 'who put the pack together')] public ?string $by = null,
    ) {}
}
