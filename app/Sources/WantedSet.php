<?php

declare(strict_types=1);

namespace App\Sources;

/**
 * A record set as somebody wants it.
 */
final readonly class WantedSet
{
    /**
     * @param  list<array{name: string, was: string|null, type: string|null, expression: string|null, meaning: string, sensitive: bool, column: string|null, form: string}>  $fields
     * @param  array<string, string>  $unitNames
     * @param  list<int>  $owners
     * @param  int  $version  the version that was seen; 0 for a new set
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $noun,
        public int $unitId,
        public string $key,
        public array $fields,
        public ?string $unitField,
        public array $unitNames,
        public ?string $coversFrom,
        public ?string $coversTo,
        public bool $coversByLoads,
        public string $mode,
        public array $owners,
        public int $version,
    ) {}

    /** @return array<string, mixed> as a workbook has it */
    public function members(): array
    {
        return array_filter([
            'code' => $this->code,
            'name' => $this->name,
            'key' => $this->key,
            'covers' => $this->coversFrom === null && $this->coversTo === null ? null : array_filter(['from' => $this->coversFrom, 'to' => $this->coversTo], is_string(...)),
            'fields' => array_map(fn (array $field): array => array_filter([
                'name' => $field['name'], 'type' => $field['type'], 'expression' => $field['type'] === null ? $field['expression'] ?? '' : null,
                'meaning' => $field['meaning'] === '' ? null : $field['meaning'], 'sensitive' => $field['sensitive'] ? true : null,
            ], fn (mixed $member): bool => $member !== null), $this->fields),
            'unitNames' => $this->unitNames === [] ? null : $this->unitNames,
            'rows' => [],
        ], fn (mixed $member): bool => $member !== null);
    }
}
