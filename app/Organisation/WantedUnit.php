<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Brick\Math\BigDecimal;

/** What a unit is called, where it stands, and how it counts. */
final readonly class WantedUnit
{
    /**
     * @param  string  $kind  what it is: `department`, `team`
     * @param  string|null  $parent  code of the unit above it; null for the organisation itself
     * @param  string  $weight  in the roll-up of the unit above
     * @param  array{string, string, string}  $rollUp  how its own status follows from those under it: the rule and its two cuts
     */
    public function __construct(public string $code, public string $name, public string $kind, public ?string $parent, public string $weight, public array $rollUp) {}

    public function is(self $other): bool
    {
        return [$this->code, $this->name, $this->kind, $this->parent, $this->weight, $this->rollUp] === [$other->code, $other->name, $other->kind, $other->parent, $other->weight, $other->rollUp];
    }

    public static function of(Unit $unit): self
    {
        $parent = Unit::query()->whereKey($unit->parent_id)->value('code');

        return new self($unit->code, $unit->name, $unit->kind, is_string($parent) ? $parent : null, self::plain($unit->weight), [$unit->roll_up, self::plain($unit->roll_up_green), self::plain($unit->roll_up_other)]);
    }

    /** The same figure is always written in the same way. */
    public static function plain(string $figure): string
    {
        return (string) BigDecimal::of($figure)->stripTrailingZeros();
    }
}
