<?php

declare(strict_types=1);

namespace App\Figures;

use App\Models\Unit;
use App\Organisation\Organisation;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\Expression;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Composition;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Operand;
use Kybernet\Core\Measure\OperandOf;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * Reads what KPIs are, where they are measured, and with what figures: a handful of queries, whatever their number.
 */
final readonly class MeasurementStore
{
    /** That of the register. */
    private const ORDER = 'themes.position NULLS LAST, themes.name, kpi_unit.position, kpis.code';

    /** Further back, in months, than any rule looks at what was counted. */
    private const MOST_REACH = 72;

    public function __construct(
        private Connection $database,
        private Scorecard $scorecard,
        private Organisation $organisation,
        private PeriodDate $dates,
        private DefinitionRows $rows,
        private FigureRows $figures,
        private CountedRows $counted,
    ) {}

    /**
     * The KPIs measured in the units, in register order, with the figures of the months given and all that these are
     * judged by.
     *
     * @param  list<int>  $units  with all units below, where formulas or gathered figures reach down to them
     * @return list<MeasurementFacts>
     */
    public function inUnits(array $units, Period $first, Period $last): array
    {
        return $this->load($this->definitions()->whereIn('kpi_unit.unit_id', $units), $first, $last);
    }

    /**
     * What is measured in the units, with what it weighs.
     *
     * @param  list<int>  $units
     * @return list<MeasurementPlace>
     */
    public function places(array $units): array
    {
        $all = $this->database->selectOne(
            "SELECT string_agg(concat_ws(' ', id, unit_id, weight, owner_id), E'\n' ORDER BY id) AS places FROM kpi_unit WHERE unit_id = ANY(?::bigint[])",
            [PgArray::of($units)],
        );

        return is_object($all) && isset($all->places) && is_string($all->places) ? $this->read($all->places) : [];
    }

    /** @return list<MeasurementPlace> of a line each */
    private function read(string $lines): array
    {
        // Weights are few; one object of each is enough for thousands of KPIs.
        $weights = [];
        $places = [];
        foreach (explode("\n", $lines) as $place) {
            [$id, $unit, $weight, $owner] = [...explode(' ', $place), null];
            $places[] = new MeasurementPlace((int) $id, (int) $unit, $owner === null ? null : (int) $owner, $weights[$weight] ??= BigDecimal::of((string) $weight));
        }

        return $places;
    }

    /**
     * The same by KPI.
     *
     * @param  list<int>  $units
     * @return array<int, list<MeasurementPlace>>
     */
    public function placesByKpi(array $units): array
    {
        /** @var list<object{kpi_id: int, places: string}> $rows */
        $rows = $this->database->select(
            "SELECT kpi_id, string_agg(concat_ws(' ', id, unit_id, weight, owner_id), E'\n' ORDER BY id) AS places FROM kpi_unit WHERE unit_id = ANY(?::bigint[]) GROUP BY kpi_id",
            [PgArray::of($units)],
        );

        $places = [];
        foreach ($rows as $row) {
            $places[$row->kpi_id] = $this->read($row->places);
        }

        return $places;
    }

    /**
     * What is measured in the units, in register order, without figures.
     *
     * @param  list<int>  $units
     * @return list<MeasurementLine>
     */
    public function lines(array $units): array
    {
        return $this->linesWhere('kpi_unit.unit_id = ANY(?::bigint[])', $units);
    }

    /**
     * Some KPIs wherever they are measured, in register order, without figures.
     *
     * @param  list<string>  $codes
     * @return list<MeasurementLine>
     */
    public function linesOf(array $codes): array
    {
        return $this->linesWhere('kpis.code = ANY(?::text[])', $codes);
    }

    /**
     * @param  list<int>|list<string>  $those
     * @return list<MeasurementLine>
     */
    private function linesWhere(string $condition, array $those): array
    {
        return array_map(fn (stdClass $row): MeasurementLine => new MeasurementLine(
            $row->id,
            $row->kpi_id,
            $row->unit_id,
            $row->code,
            $row->name,
            $row->measure,
            $row->level,
            $row->theme,
            BigDecimal::of($row->weight),
            $row->owner_id,
            $row->owner,
            $row->owner_email,
            $row->due_day,
            $row->kind === 'records',
        ), array_values($this->database->select(
            'SELECT kpi_unit.id, kpi_unit.kpi_id, kpi_unit.unit_id, kpi_unit.weight, kpi_unit.owner_id, kpis.code, kpis.name, kpis.measure, kpis.level, kpis.due_day, kpis.kind,
                 themes.name AS theme, users.name AS owner, users.email AS owner_email
             FROM kpi_unit JOIN kpis ON kpis.id = kpi_unit.kpi_id
             LEFT JOIN themes ON themes.id = kpis.theme_id LEFT JOIN users ON users.id = kpi_unit.owner_id
             WHERE '.$condition.' ORDER BY '.self::ORDER,
            [PgArray::of($those)],
        )));
    }

    /**
     * Some KPIs in their units. Figures that are worked out from others are not there: those others are not read.
     *
     * @param  list<int>  $measurements
     * @return array<int, MeasurementFacts> by identity
     */
    public function some(array $measurements, Period $first, Period $last): array
    {
        return array_column($this->load($this->definitions()->whereIn('kpi_unit.id', $measurements), $first, $last), null, 'id');
    }

    /**
     * What some KPIs are, for those who write their figures; next to nothing of the figures is read.
     *
     * @param  list<int>  $measurements
     * @return array<int, MeasurementFacts> by identity
     */
    public function described(array $measurements): array
    {
        return array_column($this->load($this->definitions()->whereIn('kpi_unit.id', $measurements), Month::running(), Month::running(), 0), null, 'id');
    }

    /** Null when there is no such measurement. */
    public function one(int $measurement, Period $first, Period $last): ?MeasurementFacts
    {
        return $this->whole([$measurement], $first, $last)[$measurement] ?? null;
    }

    /**
     * Some KPIs in their units, with all that their figures are worked out from.
     *
     * @param  list<int>  $measurements
     * @return array<int, MeasurementFacts> by identity; those that others are worked out from are there too
     */
    public function whole(array $measurements, Period $first, Period $last): array
    {
        return $this->some($this->reached($measurements), $first, $last);
    }

    /**
     * @param  list<int>  $measurements
     * @return list<int> with all that they are worked out from
     */
    private function reached(array $measurements): array
    {
        $known = [];
        $wanted = $measurements;
        while ($wanted !== []) {
            $known += array_fill_keys($wanted, true);
            $wanted = array_values(array_filter($this->sources($wanted), fn (int $id): bool => ! isset($known[$id])));
        }

        return array_keys($known);
    }

    /**
     * What the figures and targets of some measurements are worked out from, one step down: the operands of formulas, the
     * units below of gathered figures and the KPIs that weight them.
     *
     * @param  list<int>  $measurements
     * @return list<int>
     */
    private function sources(array $measurements): array
    {
        $rows = $this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->leftJoin('kpis as weighting', 'weighting.id', '=', 'kpis.weighted_by_id')
            ->whereIn('kpi_unit.id', $measurements)
            ->where(fn (Builder $query): Builder => $query->whereNotNull('kpis.formula')->orWhereNotNull('kpis.target_formula')->orWhere('kpi_unit.is_gathered', true))
            ->get(['kpi_unit.unit_id', 'kpi_unit.is_gathered', 'kpis.code', 'kpis.formula', 'kpis.target_formula', 'kpis.high_target_formula', 'weighting.code as weighted_by']);
        $codes = [];
        $units = [];
        foreach ($rows as $row) {
            $operands = DefinitionRows::operands($row);
            $codes = [...$codes, ...($row->is_gathered ? array_filter([$row->code, $row->weighted_by], is_string(...)) : []), ...array_column($operands, 'code')];
            $units = [...$units, ...$this->unitsOf($operands, (int) $row->unit_id, (bool) $row->is_gathered)];
        }

        return $this->measuredIn($codes, $units);
    }

    /**
     * Where the KPIs that a formula names are measured, for a unit.
     *
     * @param  list<Operand>  $operands
     * @return list<int>
     */
    private function namedBy(array $operands, int $unit): array
    {
        return $this->measuredIn(array_column($operands, 'code'), $this->unitsOf($operands, $unit, false));
    }

    /**
     * @param  list<Operand>  $operands
     * @return list<int> the unit, with all below it where anything reaches down to them
     */
    private function unitsOf(array $operands, int $unit, bool $reachesDown): array
    {
        foreach ($operands as $operand) {
            $reachesDown = $reachesDown || $operand->of === OperandOf::Below;
        }

        return $reachesDown ? $this->organisation->below($unit) : [$unit];
    }

    /**
     * @param  list<string>  $codes
     * @param  list<int>  $units
     * @return list<int>
     */
    private function measuredIn(array $codes, array $units): array
    {
        return $codes === [] ? [] : array_values($this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->whereIn('kpis.code', array_unique($codes))->whereIn('kpi_unit.unit_id', array_unique($units))
            ->pluck('kpi_unit.id')->all());
    }

    private function definitions(): Builder
    {
        return $this->database->table('kpi_unit')
            ->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->join('units', 'units.id', '=', 'kpi_unit.unit_id')
            ->leftJoin('kpis as weighting', 'weighting.id', '=', 'kpis.weighted_by_id')
            ->leftJoin('themes', 'themes.id', '=', 'kpis.theme_id')
            ->leftJoin('users', 'users.id', '=', 'kpi_unit.owner_id')
            ->select([
                'kpi_unit.id', 'kpi_unit.kpi_id', 'kpi_unit.unit_id', 'kpi_unit.weight', 'kpi_unit.owner_id', 'users.name as owner',
                'kpi_unit.measured_from', 'kpi_unit.measured_to', 'kpi_unit.created_at as since', 'kpi_unit.is_gathered', 'kpi_unit.baseline_from', 'kpi_unit.baseline_to',
                new Expression('kpis.splits IS NOT NULL AS is_split'),
                'kpis.code', 'kpis.name', 'kpis.purpose', 'kpis.level', 'kpis.scaled', 'kpis.measure', 'kpis.decimals', 'kpis.kind',
                'kpis.frequency', 'kpis.formula', 'kpis.target_formula', 'kpis.high_target_formula', 'kpis.counted', 'kpis.record_set_id', 'kpis.parts', 'kpis.min', 'kpis.max', 'kpis.materiality', 'kpis.gathering', 'kpis.polarity',
                'kpis.accumulation', 'kpis.text_green', 'kpis.text_amber', 'kpis.text_red', 'kpis.due_day', 'kpis.note_required', 'weighting.code as weighted_by', 'themes.name as theme', 'units.code as unit',
            ])
            ->orderByRaw(self::ORDER);
    }

    /**
     * Everything that is kept of every KPI in every unit, in the order in which it was defined.
     *
     * @param  int|null  $kpi  of one KPI alone
     * @param  Period|null  $first  with figures from this month …
     * @param  Period|null  $last  … to this one; all where null
     * @return list<array{stdClass, KeptMeasurement}> the row it is kept in, and what it says
     */
    public function placed(?int $kpi = null, ?Period $first = null, ?Period $last = null): array
    {
        $rows = array_values($this->definitions()->addSelect(['kpi_unit.position', 'users.email as owner_email'])
            ->when($kpi !== null, fn (Builder $query): Builder => $query->where('kpi_unit.kpi_id', $kpi))
            ->reorder('kpi_unit.kpi_id')->orderBy('kpi_unit.id')->get()->all());
        $placed = $this->figures->placed($rows, $first, $last);

        return array_map(fn (stdClass $row): array => [$row, $placed[$row->id]], $rows);
    }

    /** @return list<stdClass> what is kept of every KPI in every unit, without figures */
    public function rows(): array
    {
        return array_values($this->definitions()->get()->all());
    }

    /** The definition of a KPI that may be measured nowhere. */
    public function definitionOf(int $kpi): Definition
    {
        $row = $this->database->table('kpis')->leftJoin('kpis as weighting', 'weighting.id', '=', 'kpis.weighted_by_id')
            ->where('kpis.id', $kpi)->first(['kpis.*', 'weighting.code as weighted_by'])
            ?? throw new \LogicException('A KPI that was found is there.');

        return $this->rows->definition($row, $this->rows->rules([$kpi])['kpi'][$kpi] ?? []);
    }

    /**
     * A KPI in a unit as something of it is tried out, on its own figures and on those that it is worked out from.
     *
     * @param  \Closure(KeptMeasurement): KeptMeasurement  $change  what is tried
     * @param  list<Operand>  $named  KPIs that it is worked out from as it is tried
     */
    public function tried(int $measurement, Period $first, Period $last, \Closure $change, array $named = []): MeasurementFacts
    {
        $known = $this->reached([$measurement, ...$this->namedBy($named, (int) $this->database->table('kpi_unit')->where('id', $measurement)->value('unit_id'))]);

        return array_column($this->load(
            $this->definitions()->whereIn('kpi_unit.id', $known),
            $first,
            $last,
            change: fn (int $id, KeptMeasurement $kept): KeptMeasurement => $id === $measurement ? $change($kept) : $kept,
        ), null, 'id')[$measurement] ?? throw new \LogicException('A measurement that was found is there.');
    }

    /** A formula KPI that is not kept yet, on the figures of a unit. */
    public function trying(Definition $definition, Unit $unit, Period $first, Period $last): Measurement
    {
        $rows = array_values($this->definitions()->whereIn('kpi_unit.unit_id', $this->organisation->below($unit->id))->get()->all());
        $tried = new KeptMeasurement('', $unit->code, $definition, new Series([]), new Series([]));
        $composition = new Composition([...$this->figures->placed($rows, $first, $last), $tried], $this->organisation->parents(), $this->scorecard->timeline, $this->counted->counters($rows, $first->plus(-self::MOST_REACH), $last));

        return $composition->measurement('', $unit->code) ?? throw new \LogicException('What was placed is measured.');
    }

    /**
     * @param  int|null  $reach  how many months before the first are read too; null for as many as judge it
     * @param  (\Closure(int, KeptMeasurement): KeptMeasurement)|null  $change  what is tried out
     * @return list<MeasurementFacts>
     */
    private function load(Builder $definitions, Period $first, Period $last, ?int $reach = null, ?\Closure $change = null): array
    {
        $rows = array_values($definitions->get()->all());
        $placed = $this->figures->placed($rows, $first, $last, $reach);
        if ($change !== null) {
            $placed = array_combine(array_keys($placed), array_map($change, array_keys($placed), $placed));
        }
        $composition = new Composition($placed, $this->organisation->parents(), $this->scorecard->timeline, $this->counted->counters($rows, $first->plus(-($reach ?? self::MOST_REACH)), $last));
        $asOf = $this->asOf($rows, $placed);

        return array_map(fn (stdClass $row): MeasurementFacts => new MeasurementFacts(
            $row->id,
            $row->unit_id,
            $row->code,
            $row->name,
            $row->purpose,
            $row->level,
            $row->theme,
            $row->scaled,
            BigDecimal::of($row->weight),
            $row->owner_id,
            $row->owner,
            array_filter(['green' => $row->text_green, 'amber' => $row->text_amber, 'red' => $row->text_red], is_string(...)),
            $row->due_day,
            $row->note_required,
            $asOf[$row->id] ?? [],
            $composition->measurement($row->code, $row->unit) ?? throw new \LogicException('A KPI is measured in the units it was read with.'),
            $row->since,
            DefinitionRows::parts($row),
            $row->is_split,
        ), $rows);
    }

    /**
     * Up to which day figures count whose period was not over when they were entered. What is worked out from such a
     * figure is no better.
     *
     * @param  list<stdClass>  $rows
     * @param  array<int, KeptMeasurement>  $placed
     * @return array<int, array<string, string>> days by measurement and period
     */
    private function asOf(array $rows, array $placed): array
    {
        $days = [];
        $ids = array_column($rows, 'id');
        foreach ($this->database->table('readings')->whereNotNull('as_of')->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($ids)])
            ->whereRaw('(actual IS NOT NULL OR colour IS NOT NULL)')->get(['kpi_unit_id', 'period', 'as_of']) as $reading) {
            $days[$reading->kpi_unit_id][$this->dates->period($reading->period, $placed[$reading->kpi_unit_id]->definition->frequency)->key()] = $reading->as_of;
        }
        if ($days === []) {
            return [];
        }
        $places = [];
        foreach ($rows as $row) {
            $places[$row->code][$row->unit_id] = $row->id;
        }
        foreach ($rows as $row) {
            foreach ($placed[$row->id]->definition->formula->operands ?? [] as $operand) {
                $days[$row->id] = ($days[$row->id] ?? []) + ($days[$places[$operand->code][$row->unit_id] ?? 0] ?? []);
            }
            foreach ($row->is_gathered ? $this->organisation->below($row->unit_id) : [] as $unit) {
                $days[$row->id] = ($days[$row->id] ?? []) + ($days[$places[$row->code][$unit] ?? 0] ?? []);
            }
        }

        return $days;
    }
}
