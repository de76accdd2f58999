<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\Unit;
use App\Organisation\Organisation;

/**
 * Takes the names of units out of what a page shows: each is called by its letter, wherever it stands, the same letter as on
 * every other screen. The unit that the page is for keeps its name, and so do those above it.
 */
final readonly class Masks
{
    public function __construct(private Organisation $organisation) {}

    /**
     * @param  array<mixed>  $page
     * @return array<mixed>
     */
    public function over(array $page, Unit $home): array
    {
        $above = array_flip($this->organisation->way($home->id));
        $names = $codes = [];
        foreach ($this->organisation->units() as $unit) {
            if (! isset($above[$unit->id]) && $unit->id !== $home->id) {
                $letter = $this->organisation->masked($unit);
                $names[$unit->name] = $letter;
                $codes[$unit->code] = $letter;
            }
        }

        return $this->walk($page, $names, $codes);
    }

    /**
     * @param  array<mixed>  $part
     * @param  array<string, string>  $names
     * @param  array<string, string>  $codes
     * @return array<mixed>
     */
    private function walk(array $part, array $names, array $codes): array
    {
        foreach ($part as $key => $value) {
            if (is_array($value)) {
                $part[$key] = $this->walk($value, $names, $codes);
            } elseif (is_string($value) && $value !== '') {
                // Codes of units stand alone in fields of their own; names stand inside of sentences too.
                $part[$key] = in_array($key, ['unit', 'key', 'code'], true) && isset($codes[$value]) && ! isset($part['measurement']) ? $codes[$value] : strtr($value, $names);
            }
        }

        return $part;
    }
}
