<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\Month;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Measure\Targets;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use stdClass;

/**
 * Reads definitions and figures in bulk: four queries, whatever the number of KPIs, units and months.
 */
final readonly class KpiStore
{
    public function __construct(private Connection $database) {}

    /**
     * The KPIs measured in the units, in register order, with their figures of the months given.
     *
     * @param  list<int>  $units
     * @return list<KpiFacts>
     */
    public function inUnits(array $units, Period $first, Period $last): array
    {
        return $this->load($this->definitions()->whereIn('kpi_unit.unit_id', $units), $first, $last);
    }

    /** Null when there is no such KPI-unit. */
    public function one(int $kpiUnit, Period $first, Period $last): ?KpiFacts
    {
        return $this->load($this->definitions()->where('kpi_unit.id', $kpiUnit), $first, $last)[0] ?? null;
    }

    private function definitions(): Builder
    {
        return $this->database->table('kpi_unit')
            ->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->leftJoin('themes', 'themes.id', '=', 'kpis.theme_id')
            ->leftJoin('users', 'users.id', '=', 'kpi_unit.owner_id')
            ->select([
                'kpi_unit.id', 'kpi_unit.kpi_id', 'kpi_unit.unit_id', 'kpi_unit.weight', 'kpi_unit.owner_id', 'users.name as owner',
                'kpis.code', 'kpis.name', 'kpis.purpose', 'kpis.level', 'kpis.scaled', 'kpis.measure', 'kpis.decimals',
                'kpis.polarity', 'kpis.accumulation', 'themes.name as theme',
            ])
            ->orderByRaw('themes.position NULLS LAST, themes.name, kpi_unit.position, kpis.code');
    }

    /** @return list<KpiFacts> */
    private function load(Builder $definitions, Period $first, Period $last): array
    {
        $rows = array_values($definitions->get()->all());
        $ids = array_column($rows, 'id');
        $actuals = $this->series('readings', 'actual', $ids, $first, $last);
        $targets = $this->series('targets', 'target', $ids, $first, $last);
        // One KPI is measured in many units; its definition is read once.
        $definitions = [];
        $rules = $this->rules(array_values(array_unique(array_column($rows, 'kpi_id'))));
        foreach ($rows as $row) {
            $definitions[$row->kpi_id] ??= self::definition($row, $rules[$row->kpi_id] ?? []);
        }

        return array_map(function (stdClass $row) use ($actuals, $targets, $definitions): KpiFacts {
            return new KpiFacts(
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
                new Measurement(
                    $definitions[$row->kpi_id],
                    $actuals[$row->id] ?? new Series([]),
                    Targets::of(TargetLine::of($targets[$row->id] ?? new Series([]))),
                ),
            );
        }, $rows);
    }

    /** @param  list<stdClass>  $rules */
    private static function definition(stdClass $row, array $rules): Definition
    {
        $polarity = Polarity::from($row->polarity);

        return new Definition(
            $row->measure,
            max(0, $row->decimals),
            $polarity,
            Accumulation::from($row->accumulation),
            // A KPI that was judged once and is only tracked now keeps its rule sets, unused.
            $polarity === Polarity::None ? [] : array_map(fn (stdClass $rule): RuleSet => RuleSet::define(
                $polarity,
                Accumulation::from($row->accumulation),
                Month::ofDate($rule->valid_from),
                Reference::from($rule->reference),
                Deviation::from($rule->measure),
                BigDecimal::of($rule->green)->stripTrailingZeros(),
                BigDecimal::of($rule->amber)->stripTrailingZeros(),
            ), $rules),
        );
    }

    /**
     * @param  list<int>  $kpis
     * @return array<int, list<stdClass>> dated rule sets by KPI
     */
    private function rules(array $kpis): array
    {
        $rules = [];
        foreach ($this->database->table('rule_sets')->whereIn('kpi_id', $kpis)->get() as $rule) {
            $rules[$rule->kpi_id][] = $rule;
        }

        return $rules;
    }

    /**
     * One row a KPI-unit with its months as one text: far less to carry than a row a figure.
     *
     * @param  list<int>  $ids
     * @return array<int, Series>
     */
    private function series(string $table, string $column, array $ids, Period $first, Period $last): array
    {
        $rows = $this->database->table($table)
            ->whereIn('kpi_unit_id', $ids)
            ->whereBetween('period', [Month::date($first), Month::date($last)])
            ->whereNotNull($column)
            ->groupBy('kpi_unit_id')
            ->select('kpi_unit_id')
            ->selectRaw("string_agg(left(period::text, 7) || trim_scale({$column}), ' ') AS figures")
            ->get();
        $series = [];
        foreach ($rows as $row) {
            $figures = [];
            foreach (explode(' ', $row->figures) as $figure) {
                $figures[substr($figure, 0, 7)] = substr($figure, 7);
            }
            $series[$row->kpi_unit_id] = new Series($figures);
        }

        return $series;
    }
}
