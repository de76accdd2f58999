<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\PieceKind;
use App\Briefings\Views\MapRegion;
use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Kept\AssessmentStore;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * What stands below the unit of a piece: a KPI over the units below, their shapes, or all that a unit measures itself.
 */
final readonly class UnderReader
{
    /** More rows than this nobody reads on a page. */
    private const ROWS = 40;

    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights, private AssessmentStore $assessments, private Connection $database) {}

    /**
     * @param  list<Place>  $places
     * @return list<Place> those that show more than their KPIs say with what they show
     */
    public function open(array $places, PageView $page, User $user): array
    {
        $overUnits = array_filter($places, fn (Place $place): bool => $place->problem === '' && self::isOverUnits($place) && $place->piece->kpis !== []);
        $whole = array_filter($places, fn (Place $place): bool => $place->problem === '' && $place->piece->kind === PieceKind::Table && $place->piece->kpis === []);
        $codes = array_map(fn (Place $place): string => $place->piece->kpis[0] ?? '', $overUnits);
        $lines = [];
        foreach ($codes === [] ? [] : $this->rights->seen($user, $this->kpis->linesOf(array_values(array_unique($codes)))) as $line) {
            $lines[$line->code][$line->unitId] = $line;
        }
        $own = [];
        foreach ($whole === [] ? [] : $this->rights->seen($user, $this->kpis->lines(array_values(array_unique(array_map(fn (Place $place): int => $place->unit->id, $whole))))) as $line) {
            $own[$line->unitId][] = $line;
        }

        return array_map(fn (Place $place, int $at): Place => match (true) {
            isset($overUnits[$at]) => $this->over($place, $page, $lines[$place->piece->kpis[0] ?? ''] ?? []),
            isset($whole[$at]) => new Place($place->piece, $place->unit, $place->span, $own[$place->unit->id] ?? [], ''),
            default => $place,
        }, $places, array_keys($places));
    }

    /** @return list<MapRegion> in the order of the register */
    public function regions(Place $place, PageView $page): array
    {
        $ids = array_map(fn (MeasurementLine $kpi): int => $kpi->id, $place->kpis);
        $assessed = $this->assessments->spans($ids, [$page->month], $place->span);
        $shapes = $this->database->table('unit_shapes')->whereRaw('unit_id = ANY(?::bigint[])', [PgArray::of(array_map(fn (MeasurementLine $kpi): int => $kpi->unitId, $place->kpis))])->pluck('shape', 'unit_id')->all();

        return array_map(function (MeasurementLine $kpi) use ($assessed, $shapes, $page): MapRegion {
            $unit = $this->organisation->unit($kpi->unitId);
            $figure = $assessed[$kpi->id][$page->month->key()];
            $shape = is_string($shapes[$unit->id] ?? null) ? json_decode($shapes[$unit->id], true) : null;

            return new MapRegion($unit->code, $unit->name, $figure->status, $figure->actual, $figure->instead, is_array($shape) ? $shape : null);
        }, $place->kpis);
    }

    private static function isOverUnits(Place $place): bool
    {
        return $place->piece->kind === PieceKind::Map || ($place->piece->kind === PieceKind::Courses && $place->piece->choice('over') === 'units');
    }

    /**
     * The KPI in the units of one kind below: of that kind of which there are the most.
     *
     * @param  array<int, MeasurementLine>  $lines  by unit
     */
    private function over(Place $place, PageView $page, array $lines): Place
    {
        $inside = array_diff($this->organisation->below($place->unit->id, $page->month), [$place->unit->id]);
        $kinds = [];
        foreach ($inside as $unit) {
            if (isset($lines[$unit])) {
                $kinds[$this->organisation->unit($unit)->kind][] = $lines[$unit];
            }
        }
        usort($kinds, fn (array $one, array $other): int => count($other) <=> count($one));
        $most = $kinds[0] ?? [];

        // On a map each has a place of its own; rows beyond this are for Compare.
        $shown = $place->piece->kind === PieceKind::Map ? $most : array_slice($most, 0, self::ROWS);

        return new Place($place->piece, $place->unit, $place->span, $shown, $most === [] ? "{$place->piece->kpis[0]} is not measured in units below {$place->unit->name}, or they are not for you." : '', count($most));
    }
}
