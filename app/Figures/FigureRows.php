<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\Month;
use App\Support\PeriodDate;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\Reach;
use Kybernet\Core\Status\Status;
use stdClass;

/**
 * Reads the figures, targets and calls of measurements in bulk, as far back as the rules reach.
 */
final readonly class FigureRows
{
    public function __construct(private Connection $database, private PeriodDate $dates, private DefinitionRows $rows) {}

    /**
     * @param  list<stdClass>  $rows
     * @param  int|null  $reach  how many months before the first are read too; null for as many as judge it
     * @return array<int, KeptMeasurement> by measurement, with the figures of the months given or with all
     */
    public function placed(array $rows, ?Period $first, ?Period $last, ?int $reach = null): array
    {
        $ids = array_column($rows, 'id');
        $rules = $this->rows->rules(array_values(array_unique(array_column($rows, 'kpi_id'))));
        $first = $first?->plus(-($reach ?? $this->reach($rows, $rules)));
        $readings = $this->figures('readings', ['actual', 'colour'], $ids, $first, $last);
        $targets = $this->figures('targets', ['target', 'low', 'high'], $ids, $first, $last);
        $yearTargets = $this->yearTargets($ids);
        $calls = $this->calls($ids, $first, $last);
        // One KPI is measured in many units; its definition is read once.
        $made = [];
        $placed = [];
        foreach ($rows as $row) {
            $definition = $made[$row->kpi_id] ??= $this->rows->definition($row, $rules['kpi'][$row->kpi_id] ?? []);
            $placed[$row->id] = $this->placedIn(
                $row,
                $definition,
                $readings[$row->id] ?? [],
                $targets[$row->id] ?? [],
                $yearTargets[$row->id] ?? [],
                $calls[$row->id] ?? [],
                $rules['unit'][$row->id] ?? [],
            );
        }

        return $placed;
    }

    /**
     * @param  list<stdClass>  $rows
     * @param  array{kpi: array<int, list<stdClass>>, unit: array<int, list<stdClass>>}  $rules
     * @return int months, the mean of recent periods that some rule sets ask for included
     */
    private function reach(array $rows, array $rules): int
    {
        $reach = Reach::always();
        foreach ($rows as $row) {
            foreach ([...$rules['kpi'][$row->kpi_id] ?? [], ...$rules['unit'][$row->id] ?? []] as $rule) {
                $reach = max($reach, Reach::of(Frequency::from($row->frequency), $rule->periods));
            }
        }

        return $reach;
    }

    /**
     * @param  array<string, array<string, string>>  $readings  by column and date
     * @param  array<string, array<string, string>>  $targets
     * @param  array<string, array<string, string>>  $yearTargets  by column and year
     * @param  list<stdClass>  $calls
     * @param  list<stdClass>  $ownRules
     */
    private function placedIn(
        stdClass $row,
        Definition $definition,
        array $readings,
        array $targets,
        array $yearTargets,
        array $calls,
        array $ownRules,
    ): KeptMeasurement {
        $series = fn (array $figures): Series => new Series($this->byPeriod($figures, $definition));
        $score = fn (string $colour): string => (string) Status::from($colour)->score();
        $baseline = $row->baseline_from === null ? null : $this->dates->period($row->baseline_from, $definition->frequency)
            ->to($this->dates->period($row->baseline_to, $definition->frequency));

        return new KeptMeasurement(
            $row->code,
            $row->unit,
            $definition,
            $definition->kind === Kind::Judged ? $series(array_map($score, $readings['colour'] ?? [])) : $series($readings['actual'] ?? []),
            $series($targets['target'] ?? $targets['low'] ?? []),
            $series($targets['high'] ?? []),
            $yearTargets['target'] ?? $yearTargets['low'] ?? [],
            $yearTargets['high'] ?? [],
            $row->is_gathered,
            new Tenure(
                $row->measured_from === null ? null : Month::ofDate($row->measured_from),
                $row->measured_to === null ? null : Month::ofDate($row->measured_to),
            ),
            $this->rows->ruleSets($definition, $ownRules),
            $baseline,
            array_map(fn (stdClass $call): Call => new Call(
                Span::from($call->span),
                $this->dates->period($call->period, $definition->frequency),
                Status::from($call->status),
                $call->reason,
                Exact::of(BigDecimal::of($call->over)->stripTrailingZeros()),
                $call->by,
            ), $calls),
        );
    }

    /**
     * @param  array<string, string>  $figures  by date
     * @return array<string, string> by period
     */
    private function byPeriod(array $figures, Definition $definition): array
    {
        $series = [];
        if ($definition->frequency === Frequency::Month) {
            foreach ($figures as $date => $figure) {
                $series[substr($date, 0, 7)] = $figure;
            }

            return $series;
        }
        foreach ($figures as $date => $figure) {
            $series[$this->dates->period($date, $definition->frequency)->key()] = $figure;
        }

        return $series;
    }

    /**
     * One row a measurement with its periods as one text: far less to carry than a row a figure.
     *
     * @param  list<string>  $columns
     * @param  list<int>  $ids
     * @return array<int, array<string, array<string, string>>> by measurement, column and date
     */
    private function figures(string $table, array $columns, array $ids, ?Period $first, ?Period $last): array
    {
        $query = $this->database->table($table)
            ->whereIn('kpi_unit_id', $ids)
            ->when($first !== null, fn (Builder $query): Builder => $query->whereBetween('period', self::dates($first, $last)))
            ->groupBy('kpi_unit_id')
            ->select('kpi_unit_id');
        foreach ($columns as $column) {
            $figure = $column === 'colour' ? $column : "trim_scale({$column})";
            $query->selectRaw("string_agg(period::text || {$figure}, ' ') FILTER (WHERE {$column} IS NOT NULL) AS {$column}");
        }
        $series = [];
        foreach ($query->get() as $row) {
            foreach ($columns as $column) {
                foreach ($row->{$column} === null ? [] : explode(' ', $row->{$column}) as $figure) {
                    $series[$row->kpi_unit_id][$column][substr($figure, 0, 10)] = substr($figure, 10);
                }
            }
        }

        return $series;
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, array<string, array<string, string>>> by measurement, column and year
     */
    private function yearTargets(array $ids): array
    {
        $targets = [];
        foreach ($this->database->table('year_targets')->whereIn('kpi_unit_id', $ids)
            ->selectRaw('kpi_unit_id, year, trim_scale(target) AS target, trim_scale(low) AS low, trim_scale(high) AS high')->get() as $row) {
            foreach (['target', 'low', 'high'] as $column) {
                if ($row->{$column} !== null) {
                    $targets[$row->kpi_unit_id][$column][Period::financialYear($row->year)->key()] = $row->{$column};
                }
            }
        }

        return $targets;
    }

    /**
     * @param  list<int>  $ids
     * @return array<int, list<stdClass>> by measurement
     */
    private function calls(array $ids, ?Period $first, ?Period $last): array
    {
        $calls = [];
        foreach ($this->database->table('calls')->leftJoin('users', 'users.id', '=', 'calls.author_id')
            ->whereIn('kpi_unit_id', $ids)
            ->when($first !== null, fn (Builder $query): Builder => $query->whereBetween('period', self::dates($first, $last)))
            ->orderBy('calls.id')
            ->get(['kpi_unit_id', 'period', 'span', 'status', 'reason', 'over', 'users.email as by']) as $call) {
            $calls[$call->kpi_unit_id][] = $call;
        }

        return $calls;
    }

    /** @return array{string, string} wide enough for a week that begins before the first month, or ends after the last */
    private static function dates(?Period $first, ?Period $last): array
    {
        return [$first === null ? '0001-01-01' : max('0001-01-01', Month::date($first->plus(-1))), $last === null ? '9999-12-31' : Month::date($last->plus(1))];
    }
}
