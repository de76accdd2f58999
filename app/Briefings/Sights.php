<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Figures\MeasurementStore;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;

/**
 * Which pieces of a published page somebody may read: those of which they see every figure.
 */
final readonly class Sights
{
    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights) {}

    /**
     * @param  array<string, list<array{string, string}>>  $figures  of {@see ShownFigures}
     * @return list<string> the pieces that are not for this person
     */
    public function withheld(array $figures, User $user): array
    {
        if ($this->rights->seesAll($user)) {
            return [];
        }
        $codes = array_values(array_filter(array_unique(array_map(fn (array $pair): string => $pair[0], array_merge(...array_values($figures), ...[[]]))), fn (string $code): bool => $code !== ''));
        $seen = [];
        foreach ($codes === [] ? [] : $this->rights->seen($user, $this->kpis->linesOf($codes)) as $line) {
            $seen["{$line->code} {$this->organisation->unit($line->unitId)->code}"] = true;
        }

        return array_values(array_filter(array_keys($figures), function (string $piece) use ($figures, $seen, $user): bool {
            foreach ($figures[$piece] as [$code, $unit]) {
                if ($code === '' ? ! $this->seesUnit($unit, $user) : ! isset($seen["{$code} {$unit}"])) {
                    return true;
                }
            }

            return false;
        }));
    }

    private function seesUnit(string $code, User $user): bool
    {
        $unit = $this->organisation->byCode($code);

        return $unit !== null && $this->rights->maySee($user, $unit->id, null);
    }
}
