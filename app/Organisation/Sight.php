<?php

declare(strict_types=1);

namespace App\Organisation;

/** What a person sees, for queries: everything, or what is measured in some units and what some people own. */
final readonly class Sight
{
    /**
     * @param  list<int>|null  $units  whose measurements are seen; null for all
     * @param  list<int>  $owners  whose measurements are seen wherever they are
     */
    public function __construct(public ?array $units, public array $owners) {}

    public function isWhole(): bool
    {
        return $this->units === null;
    }
}
