<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;

/** What a unit is called and where it stands. */
final readonly class WantedUnit
{
    /**
     * @param  string  $kind  what it is: `department`, `team`
     * @param  string|null  $parent  code of the unit above it; null for the organisation itself
     */
    public function __construct(public string $name, public string $kind, public ?string $parent) {}

    public function is(self $other): bool
    {
        return [$this->name, $this->kind, $this->parent] === [$other->name, $other->kind, $other->parent];
    }

    public static function of(Unit $unit): self
    {
        $parent = Unit::query()->whereKey($unit->parent_id)->value('code');

        return new self($unit->name, $unit->kind, is_string($parent) ? $parent : null);
    }
}
