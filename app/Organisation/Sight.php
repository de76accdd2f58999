<?php

declare(strict_types=1);

namespace App\Organisation;

/** What a person sees, for queries: everything, or what is measured in some units, or what is theirs. */
final readonly class Sight
{
    /**
     * @param  list<int>|null  $units  whose measurements are seen; null for all
     * @param  int|null  $owner  whose measurements alone are seen; null for anybody's
     */
    public function __construct(public ?array $units, public ?int $owner) {}

    public function isWhole(): bool
    {
        return $this->units === null && $this->owner === null;
    }
}
