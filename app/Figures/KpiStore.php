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
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use stdClass;

/**
 * Reads definitions and figures in bulk: three queries, whatever the number of KPIs, units and months.
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
        $rules = $this->database->table('rule_sets')
            ->whereColumn('rule_sets.kpi_id', 'kpis.id')
            ->selectRaw("json_agg(json_build_array(to_char(valid_from, 'YYYY-MM'), reference, rule_sets.measure, green::text, amber::text))");

        return $this->database->table('kpi_unit')
            ->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->leftJoin('themes', 'themes.id', '=', 'kpis.theme_id')
            ->leftJoin('users', 'users.id', '=', 'kpi_unit.owner_id')
            ->select([
                'kpi_unit.id', 'kpi_unit.unit_id', 'kpi_unit.weight', 'kpi_unit.owner_id', 'users.name as owner',
                'kpis.code', 'kpis.name', 'kpis.purpose', 'kpis.level', 'kpis.scaled', 'kpis.measure', 'kpis.decimals',
                'kpis.polarity', 'kpis.accumulation', 'themes.name as theme',
            ])
            ->selectSub($rules, 'rules')
            ->orderByRaw('themes.position NULLS LAST, themes.name, kpi_unit.position, kpis.code');
    }

    /** @return list<KpiFacts> */
    private function load(Builder $definitions, Period $first, Period $last): array
    {
        $rows = array_values($definitions->get()->all());
        $ids = array_column($rows, 'id');
        $actuals = $this->series('readings', 'actual', $ids, $first, $last);
        $targets = $this->series('targets', 'target', $ids, $first, $last);
        /** @var array<string, Definition> $parsed */
        $parsed = [];

        return array_map(function (stdClass $row) use ($actuals, $targets, &$parsed): KpiFacts {
            // One KPI is measured in many units; its definition is read once.
            $definition = $parsed[$row->code] ??= self::definition($row);

            return new KpiFacts(
                $row->id,
                $row->unit_id,
                $row->code,
                $row->name,
                $row->purpose,
                $row->level,
                $row->theme,
                $row->scaled,
                (float) $row->weight,
                $row->owner_id,
                $row->owner,
                new Measurement($definition, $actuals[$row->id] ?? new Series([]), $targets[$row->id] ?? new Series([])),
            );
        }, $rows);
    }

    private static function definition(stdClass $row): Definition
    {
        $polarity = Polarity::from($row->polarity);
        /** @var list<array{string, string, string, string, string}> $rules */
        $rules = $row->rules === null || $polarity === Polarity::None ? [] : json_decode($row->rules, true, 4, JSON_THROW_ON_ERROR);

        return new Definition(
            $row->measure,
            max(0, $row->decimals),
            $polarity,
            Accumulation::from($row->accumulation),
            array_map(fn (array $rule): RuleSet => RuleSet::define(
                $polarity,
                Period::parse($rule[0]),
                Reference::from($rule[1]),
                Deviation::from($rule[2]),
                BigDecimal::of($rule[3])->stripTrailingZeros(),
                BigDecimal::of($rule[4])->stripTrailingZeros(),
            ), $rules),
        );
    }

    /**
     * One row a KPI-unit with its months as JSON: far less to carry than a row a figure.
     *
     * @param  list<int>  $ids
     * @return array<int, Series>
     */
    private function series(string $table, string $column, array $ids, Period $first, Period $last): array
    {
        return $this->database->table($table)
            ->whereIn('kpi_unit_id', $ids)
            ->whereBetween('period', [Month::date($first), Month::date($last)])
            ->whereNotNull($column)
            ->groupBy('kpi_unit_id')
            ->select('kpi_unit_id')
            ->selectRaw("json_object_agg(to_char(period, 'YYYY-MM'), trim_scale({$column})::text) AS figures")
            ->get()
            ->mapWithKeys(fn (object $row): array => [$row->kpi_unit_id => new Series(json_decode($row->figures, true, 2, JSON_THROW_ON_ERROR))])
            ->all();
    }
}
