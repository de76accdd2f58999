<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\CompareKind;
use App\Figures\MeasurementPlace;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;

/**
 * Finds the units of one kind under a unit that a person sees, with the KPIs that they share.
 */
final readonly class LikeUnits
{
    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights) {}

    /** @param  string  $kind  blank, or one that is not there, for the kind with the most units that measure something */
    public function under(Unit $unit, string $kind, Period $month, User $user): Shared
    {
        $below = array_values(array_filter($this->organisation->below($unit->id, $month), fn (int $id): bool => $id !== $unit->id));
        $places = array_map(fn (array $of): array => $this->rights->seen($user, $of), $this->kpis->placesByKpi($below));
        [$kind, $kinds] = $this->kinds($places, $kind);
        $measured = $units = [];
        foreach ($places as $kpi => $of) {
            foreach ($of as $place) {
                if ($this->organisation->unit($place->unitId)->kind === $kind) {
                    $measured[$kpi][$place->unitId] = $place->id;
                    $units[$place->unitId] = true;
                }
            }
        }
        $measured = array_filter($measured, fn (array $of): bool => count($of) > 1 || count($units) === 1);

        return $this->shared($kind, $kinds, $measured, count($units));
    }

    /**
     * @param  array<int, list<MeasurementPlace>>  $places  by KPI
     * @return array{string, list<CompareKind>}
     */
    private function kinds(array $places, string $kind): array
    {
        $units = [];
        foreach ($places as $of) {
            foreach ($of as $place) {
                $units[$this->organisation->unit($place->unitId)->kind][$place->unitId] = true;
            }
        }
        $counts = array_map(count(...), $units);
        arsort($counts);
        $kinds = array_map(fn (string $each, int $count): CompareKind => new CompareKind($each, $count), array_keys($counts), $counts);

        return [isset($counts[$kind]) ? $kind : $kinds[0]->kind ?? '', $kinds];
    }

    /**
     * What a person judges has no figures. A measurement of each KPI says what it is.
     *
     * @param  list<CompareKind>  $kinds
     * @param  array<int, non-empty-array<int, int>>  $measured  measurements by KPI and unit
     */
    private function shared(string $kind, array $kinds, array $measured, int $units): Shared
    {
        $first = array_map(fn (array $of): int => $of[array_key_first($of)], $measured);
        $kpiOf = array_flip($first);
        $common = $rest = $facts = [];
        foreach ($this->kpis->described(array_values($first)) as $id => $kpi) {
            if ($kpi->measurement->definition->kind === Kind::Judged) {
                continue;
            }
            $facts[$kpi->code] = $kpi;
            $of = $measured[$kpiOf[$id]];
            if (2 * count($of) >= $units) {
                $common[$kpi->code] = $of;
            } else {
                $rest[$kpi->code] = $of;
            }
        }

        return new Shared($kind, $kinds, $common + $rest, $facts);
    }
}
