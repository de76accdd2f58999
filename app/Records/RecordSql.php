<?php

declare(strict_types=1);

namespace App\Records;

use Kybernet\Core\Records\Comparison;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\Operator;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Zone;

/**
 * What a definition means of a record, as the text of a query over a table of records. The core says what is right
 * ({@see \Kybernet\Core\Records}); a test holds both against each other.
 *
 * Fields stand in columns of their type: text, numeric, date, timestamptz, boolean.
 */
final readonly class RecordSql
{
    private const SECONDS_A_DAY = 86_400;

    /**
     * @param  array<string, string>  $columns  by field
     * @param  string  $periodEnd  what gives the last day of the period
     */
    public function __construct(private RecordSet $set, private array $columns, private Zone $zone, private string $periodEnd) {}

    /** Whether a record meets a condition: true or false, never null. */
    public function condition(Condition $condition): string
    {
        return '('.implode(' OR ', array_map(fn (Comparison $comparison): string => $this->comparison($comparison), $condition->comparisons)).')';
    }

    /** The local date of a date or time field. */
    public function day(string $field): string
    {
        $column = $this->columns[$field];

        return $this->set->fields[$field] === FieldType::Time ? "({$column} AT TIME ZONE ".self::text($this->zone->name).')::date' : $column;
    }

    /** The value of what is no number. */
    public function plain(Source $source): string
    {
        return $this->columns[$source->text];
    }

    public function number(Source $source): SqlTerm
    {
        return $source->expression === null ? new SqlTerm($this->columns[$source->text]) : $this->expression($source->expression);
    }

    private function expression(Expression $expression): SqlTerm
    {
        return $expression->arithmetic->fold(new SqlAlgebra(fn (string $function, array $names): SqlTerm => match ($function) {
            Expression::DAYS => $this->days($names[0] ?? '', $names[1] ?? '', 1),
            Expression::HOURS => $this->days($names[0] ?? '', $names[1] ?? '', 24),
            Expression::OR_ZERO => $this->orZero($expression, $names[0] ?? ''),
            default => $this->named($names[0] ?? ''),
        }));
    }

    private function named(string $name): SqlTerm
    {
        return isset($this->set->calculated[$name]) ? $this->expression($this->set->calculated[$name]) : new SqlTerm($this->columns[$name]);
    }

    private function orZero(Expression $expression, string $name): SqlTerm
    {
        $term = $this->named($name);
        $filled = implode(' OR ', array_map(fn (string $other): string => (isset($this->set->calculated[$other]) ? $this->named($other)->sql : $this->columns[$other]).' IS NOT NULL', $expression->names()));

        return new SqlTerm("(CASE WHEN {$term->sql} IS NULL AND ({$filled}) THEN 0 ELSE {$term->sql} END)", $term->divisor);
    }

    /** From one to the other, so many times over: whole days between dates, otherwise seconds ÷ those of a day. */
    private function days(string $from, string $to, int $times): SqlTerm
    {
        $isDate = fn (string $name): bool => $name === Expression::PERIOD_END || $this->set->fields[$name] === FieldType::Date;
        $column = fn (string $name): string => $name === Expression::PERIOD_END ? $this->periodEnd : $this->columns[$name];
        if ($isDate($from) && $isDate($to)) {
            return new SqlTerm("(({$column($to)} - {$column($from)})::numeric * {$times})");
        }
        $instant = fn (string $name): string => match (true) {
            $name === Expression::PERIOD_END => $this->begin("({$this->periodEnd} + 1)"),
            $isDate($name) => $this->begin($column($name)),
            default => $column($name),
        };

        return new SqlTerm("(extract(epoch FROM {$instant($to)}) - extract(epoch FROM {$instant($from)}))", max(1, intdiv(self::SECONDS_A_DAY, $times)));
    }

    /** The first instant of a local day: where midnight comes twice, the database takes the second. */
    private function begin(string $day): string
    {
        $zone = self::text($this->zone->name);
        $midnight = "({$day}::timestamp AT TIME ZONE {$zone})";

        return "(CASE WHEN (({$midnight} - interval '1 hour') AT TIME ZONE {$zone})::date = {$day} THEN {$midnight} - interval '1 hour' ELSE {$midnight} END)";
    }

    private function comparison(Comparison $comparison): string
    {
        [$source, $operator, $operands] = [$comparison->source, $comparison->operator, $comparison->operands];
        $first = $operands[0];
        $term = $source->type === FieldType::Number ? $this->number($source) : null;
        // With a date a time is compared by its local date.
        $left = match (true) {
            $term !== null => $term->sql,
            $source->type === FieldType::Time && $first instanceof Day => $this->day($source->text),
            default => $this->plain($source),
        };
        $right = fn (string|Day|Instant|bool $operand): string => match (true) {
            is_bool($operand) => $operand ? 'true' : 'false',
            $operand instanceof Day => "'{$operand->key()}'::date",
            $operand instanceof Instant => "'{$operand->key()}'::timestamptz",
            $term !== null => "({$operand}::numeric * {$term->divisor})",
            default => self::text($operand),
        };
        if ($operator === Operator::Empty) {
            return $first === true ? "({$left} IS NULL)" : "({$left} IS NOT NULL)";
        }
        $list = implode(', ', array_map($right, $operands));
        $holds = match ($operator) {
            Operator::Is => "{$left} = {$right($first)}",
            Operator::IsNot => "{$left} <> {$right($first)}",
            Operator::OneOf => "{$left} IN ({$list})",
            Operator::NoneOf => "{$left} NOT IN ({$list})",
            Operator::Contains => "strpos({$left}, {$right($first)}) > 0",
            Operator::BeginsWith => "starts_with({$left}, {$right($first)})",
            Operator::AtLeast => "{$left} >= {$right($first)}",
            Operator::AtMost => "{$left} <= {$right($first)}",
            Operator::MoreThan => "{$left} > {$right($first)}",
            Operator::LessThan => "{$left} < {$right($first)}",
            default => "{$left} BETWEEN {$right($first)} AND {$right($operands[1] ?? $first)}",
        };

        return "coalesce({$holds}, false)";
    }

    private static function text(string $text): string
    {
        return "'".str_replace("'", "''", $text)."'";
    }
}
