<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * Somebody whom owners and notes refer to.
 */
final readonly class PersonEntry
{
    /**
     * @param  string  $role  what they come to do for the unit
     * @param  string|null  $unit  code; null for the whole organisation
     * @param  list<array{role: string, unit: string|null}>  $further  what they do besides
     */
    public function __construct(
        public string $email,
        public string $name,
        public string $role,
        public ?string $unit,
        public ?string $locale,
        /** nobody signs in with it any more; what it wrote keeps its name */
        public bool $isBlocked = false,
        public array $further = [],
    ) {}

    /** @return non-empty-list<array{role: string, unit: string|null}> the first first */
    public function roles(): array
    {
        return [['role' => $this->role, 'unit' => $this->unit], ...$this->further];
    }
}
