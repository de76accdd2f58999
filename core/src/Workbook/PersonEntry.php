<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * Somebody whom owners and notes refer to.
 */
final readonly class PersonEntry
{
    public function __construct(
        public string $email,
        public string $name,
        public string $role,
        public ?string $unit,
        public ?string $locale,
        /** nobody signs in with it any more; what it wrote keeps its name */
        public bool $isBlocked = false,
    ) {}
}
