<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\User;
use App\Sources\Views\CaseBin;
use App\Sources\Views\CaseRow;
use App\Sources\Views\CasesPage;
use App\Sources\Views\GoalTried;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Percentile;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Scorecard;

/**
 * Reads the records behind a figure as cases: each a dot over its value, in rows by a field or by the steps of a process.
 * Beyond a thousand dots they are put together. Another goal is tried on them; nothing is kept.
 */
final readonly class CasesReader
{
    /** So many dots can be told apart. */
    private const MOST_DOTS = 1_000;

    private const BINS = 60;

    private const ROWS = 8;

    public const STEPS = 'steps';

    private const DECIMALS = 4;

    public function __construct(private Connection $database, private Scorecard $scorecard, private GoalTrial $trial, private SourcePolicy $policy) {}

    /**
     * @param  string  $by  a field; `steps` for the steps of each record; blank for all in one row
     * @param  string  $goal  another goal as it is typed; blank for the one that there is
     *
     * @throws ValidationException where the goal is no figure
     */
    public function read(Behind $behind, Period $month, Span $span, string $by, string $goal, User $user): CasesPage
    {
        $aim = CaseAim::of($behind, $this->scorecard->assess($behind->kpi->measurement, $month, $span));
        $sees = $this->policy->sees($user, $behind->set->id);
        $isMasked = $aim !== null && ! $sees && $behind->set->isSensitive($aim->of);
        $aim = $isMasked ? null : $aim;
        $steps = array_values(array_filter($this->steps($behind), fn (Source $step): bool => $sees || ! $behind->set->isSensitive($step)));
        $setting = new NumberSetting($user->locale);
        $fields = array_values(array_filter(array_keys($behind->set->set()->fields), fn (string $name): bool => $behind->set->set()->fields[$name] === FieldType::Text && $name !== $behind->set->entry->key && ! in_array($name, $behind->set->sensitive(), true)));
        $rows = match (true) {
            $aim === null => [],
            $by === self::STEPS && $steps !== [] => $this->ofSteps($behind, $steps, $aim),
            in_array($by, $fields, true) => $this->ofField($behind, $by, $aim),
            default => [$this->row($behind, $aim->of, 'true', [], null, '', true)],
        };
        try {
            $typed = $goal === '' ? null : $setting->read($goal);
        } catch (InvalidArgumentException $problem) {
            throw ValidationException::withMessages(['goal' => $problem->getMessage()]);
        }
        $write = fn (?GoalTried $tried): ?GoalTried => $tried === null ? null : new GoalTried($setting->write($tried->goal), $tried->met, $tried->cases, $tried->share, $tried->status, $tried->alike, $tried->periods);

        return new CasesPage(
            $behind->set->noun,
            $aim->of->text ?? '',
            $aim === null ? '' : $this->measure($behind, $aim->of),
            $fields,
            count($steps) > 1,
            $rows,
            $aim?->goal === null ? null : $setting->write($aim->goal),
            $aim->isAtMost ?? true,
            $aim?->goal === null ? null : $write($this->trial->try($behind, $aim, $aim->goal, $month, $span)),
            $aim === null || $typed === null ? null : $write($this->trial->try($behind, $aim, $typed, $month, $span)),
            $isMasked,
        );
    }

    /** In what the values are counted, where that is known. */
    private function measure(Behind $behind, Source $of): string
    {
        $expression = $of->expression;

        return match (true) {
            $expression === null => '',
            array_filter($expression->arithmetic->uses, fn (array $use): bool => $use[0] === Expression::HOURS) !== [] => 'hours',
            array_filter($expression->arithmetic->uses, fn (array $use): bool => $use[0] === Expression::DAYS) !== [] => 'days',
            default => $behind->counted->take->isOfNumbers() ? $behind->kpi->measurement->definition->measure : '',
        };
    }

    /** @return list<Source> durations from one field of a record to another */
    private function steps(Behind $behind): array
    {
        $steps = [];
        foreach ($behind->set->set()->calculated as $name => $expression) {
            if (! $expression->isDated() && preg_match('/\A\s*(?:days|hours)\s*\([^()]*\)\s*\z/', $expression->text) === 1) {
                $steps[] = $behind->set->set()->source($name);
            }
        }

        return $steps;
    }

    /**
     * @param  list<Source>  $steps
     * @return list<CaseRow>
     */
    private function ofSteps(Behind $behind, array $steps, CaseAim $aim): array
    {
        $own = array_values(array_filter($steps, fn (Source $step): bool => $step->text !== $aim->of->text));

        return array_map(fn (Source $step): CaseRow => $this->row($behind, $step, 'true', [], $step->text, $behind->set->entry->meanings[$step->text] ?? '', $step->text === $aim->of->text), [...array_slice($own, 0, self::ROWS - 1), $aim->of]);
    }

    /** @return list<CaseRow> the most frequent first */
    private function ofField(Behind $behind, string $field, CaseAim $aim): array
    {
        $column = $behind->set->table->columns[$field];
        $query = $behind->query();
        $found = $this->database->select("SELECT placed.{$column} AS name FROM {$query->counting()} GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT ".self::ROWS, $query->bindings());
        $rows = [];
        foreach ($found as $row) {
            $name = is_object($row) && is_string($row->name ?? null) ? $row->name : null;
            $rows[] = $this->row($behind, $aim->of, $name === null ? "placed.{$column} IS NULL" : "placed.{$column} = ?", $name === null ? [] : [$name], $name, '', true);
        }

        return $rows;
    }

    /** @param  list<string>  $bindings */
    private function row(Behind $behind, Source $of, string $where, array $bindings, ?string $name, string $meaning, bool $hasGoal): CaseRow
    {
        $query = $behind->query();
        $cases = "SELECT {$query->shown($of)} AS value FROM {$query->counting()} AND {$where}";
        $bound = [...$query->bindings(), ...$bindings];
        $row = $this->database->selectOne("SELECT count(value) AS cases, sum(value)::text AS total, min(value)::text AS least, max(value)::text AS most FROM ({$cases}) AS cases", $bound);
        $count = is_object($row) && is_int($row->cases ?? null) ? $row->cases : 0;
        if (! is_object($row) || $count < 1 || ! is_string($row->total ?? null) || ! is_string($row->least ?? null) || ! is_string($row->most ?? null)) {
            return new CaseRow($name, $meaning, 0, null, null, null, [], [], $hasGoal);
        }
        $text = fn (Exact $figure): string => (string) $figure->rounded(self::DECIMALS)->stripTrailingZeros();
        $values = $count > self::MOST_DOTS ? [] : $this->texts("SELECT value::text AS value FROM ({$cases}) AS cases WHERE value IS NOT NULL ORDER BY cases.value", $bound);
        $quantile = fn (int $percent): string => $text(Percentile::between(
            array_map(Exact::of(...), $this->texts("SELECT value::text AS value FROM ({$cases}) AS cases WHERE value IS NOT NULL ORDER BY cases.value OFFSET ".Percentile::place($count, BigDecimal::of($percent)).' LIMIT 2', $bound)),
            $count,
            BigDecimal::of($percent),
        ));

        return new CaseRow(
            $name, $meaning, $count, $text(Exact::mean(Exact::of(BigDecimal::of($row->total)), $count)), $quantile(50), $quantile(90), $values,
            $count > self::MOST_DOTS ? $this->bins($cases, $bound, $row->least, $row->most) : [], $hasGoal,
        );
    }

    /**
     * @param  list<mixed>  $bound
     * @return list<CaseBin> of the same width, from the least to the most
     */
    private function bins(string $cases, array $bound, string $least, string $most): array
    {
        $least = BigDecimal::of($least);
        $width = BigDecimal::of($most)->minus($least)->dividedBy(self::BINS, 8, \Brick\Math\RoundingMode::UP);
        if ($width->isZero()) {
            return [];
        }
        $found = array_fill(1, self::BINS, 0);
        foreach ($this->database->select("SELECT least({$this->bucket()}, ".self::BINS.") AS bin, count(*) AS cases FROM ({$cases}) AS cases WHERE value IS NOT NULL GROUP BY 1", [(string) $least, (string) $width, ...$bound]) as $row) {
            if (is_object($row) && is_int($row->bin ?? null) && is_int($row->cases ?? null)) {
                $found[$row->bin] = $row->cases;
            }
        }
        $edge = fn (int $at): string => (string) $least->plus($width->multipliedBy($at))->stripTrailingZeros();

        return array_map(fn (int $bin, int $count): CaseBin => new CaseBin($edge($bin - 1), $edge($bin), $count), array_keys($found), array_values($found));
    }

    private function bucket(): string
    {
        return 'floor((value - ?::numeric) / ?::numeric)::int + 1';
    }

    /**
     * @param  list<mixed>  $bound
     * @return list<string>
     */
    private function texts(string $sql, array $bound): array
    {
        $texts = [];
        foreach ($this->database->select($sql, $bound) as $row) {
            if (is_object($row) && is_string($row->value ?? null)) {
                $texts[] = $row->value;
            }
        }

        return $texts;
    }
}
