<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\CompareKind;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;

/**
 * The units of one kind under a unit that a person sees, with the KPIs that they share.
 */
final readonly class LikeUnits
{
    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights) {}

    /**
     * @param  string  $kind  blank, or one that is not there, for the kind with the most units that measure something
     * @return array{string, list<CompareKind>} the kind that is compared, blank where there is none, and all that could be
     */
    public function kinds(Unit $unit, string $kind, Period $month, User $user): array
    {
        $measuring = [];
        foreach ($this->rights->seen($user, $this->kpis->places($this->below($unit, $month))) as $place) {
            $measuring[$place->unitId] = true;
        }
        $units = [];
        foreach (array_keys($measuring) as $id) {
            $of = $this->organisation->unit($id)->kind;
            $units[$of] = ($units[$of] ?? 0) + 1;
        }
        arsort($units);
        $kinds = array_map(fn (string|int $each, int $count): CompareKind => new CompareKind((string) $each, $count), array_keys($units), $units);

        return [isset($units[$kind]) ? $kind : $kinds[0]->kind ?? '', $kinds];
    }

    /** @return list<MeasurementLine> what the units of the kind measure, in register order */
    public function lines(Unit $unit, string $kind, Period $month, User $user): array
    {
        $ids = array_values(array_filter($this->below($unit, $month), fn (int $id): bool => $this->organisation->unit($id)->kind === $kind));

        return $this->rights->seen($user, $this->kpis->lines($ids));
    }

    /**
     * What is compared: by code of the KPI its measurements by unit, those first that most of the units share. What a
     * person judges has no figures.
     *
     * @param  list<MeasurementLine>  $lines
     * @return array<int|string, non-empty-array<int, MeasurementLine>>
     */
    public function shared(array $lines): array
    {
        $shared = $units = [];
        foreach ($lines as $line) {
            $shared[$line->code][$line->unitId] = $line;
            $units[$line->unitId] = true;
        }
        $shared = array_filter($shared, fn (array $of): bool => count($of) > 1 || count($units) === 1);
        $facts = $this->described($shared);

        // A stable order: what is shared by half of them or more stands as in the register, before the rest.
        $shared = array_filter($shared, fn (array $of, string|int $code): bool => $facts[$code]->measurement->definition->kind !== Kind::Judged, ARRAY_FILTER_USE_BOTH);
        $isCommon = fn (array $of): bool => 2 * count($of) >= count($units);

        return array_filter($shared, $isCommon) + $shared;
    }

    /**
     * @param  array<int|string, non-empty-array<int, MeasurementLine>>  $kpis  by code
     * @return array<int|string, MeasurementFacts> what each is, by code
     */
    public function described(array $kpis): array
    {
        $first = array_map(fn (array $of): int => $of[array_key_first($of)]->id, $kpis);
        $facts = $this->kpis->described(array_values($first));

        return array_map(fn (int $id): MeasurementFacts => $facts[$id], $first);
    }

    /** @return list<int> */
    private function below(Unit $unit, Period $month): array
    {
        return array_values(array_filter($this->organisation->below($unit->id, $month), fn (int $id): bool => $id !== $unit->id));
    }
}
