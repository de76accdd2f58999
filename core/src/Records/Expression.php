<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Arithmetic;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\NoValue;

/**
 * A number worked out from the fields of one record, in the language of formulas. `days(a, b)` and `hours(a, b)` are the
 * time from a to b, of dates, times or `periodEnd`, the last day of the period; `orzero(x)` counts an empty x as 0 where
 * another field is filled.
 *
 * @phpstan-import-type Value from RecordSet
 */
final readonly class Expression
{
    public const PERIOD_END = 'periodEnd';

    public const DAYS = 'days';

    public const HOURS = 'hours';

    public const OR_ZERO = 'orzero';

    private const SECONDS_A_DAY = 86_400;

    /**
     * @param  array<string, FieldType>  $fields
     * @param  array<string, self>  $calculated
     */
    private function __construct(public string $text, public Arithmetic $arithmetic, private array $fields, private array $calculated) {}

    /**
     * @param  array<string, FieldType>  $fields
     * @param  array<string, self>  $calculated  those that may be named in it
     *
     * @throws FormulaProblem where it cannot be read, or names what is no field or of another kind
     */
    public static function parse(string $text, array $fields, array $calculated = []): self
    {
        $arithmetic = Arithmetic::parse($text, [self::OR_ZERO => 1, self::DAYS => 2, self::HOURS => 2], 'field');
        if ($arithmetic->uses === []) {
            throw new FormulaProblem('The expression names no field.', null);
        }
        $used = [];
        foreach ($arithmetic->uses as [$function, $names]) {
            $isTime = $function === self::DAYS || $function === self::HOURS;
            foreach ($names as $name) {
                $problem = self::problem($name, $isTime, isset($calculated[$name]) ? FieldType::Number : $fields[$name] ?? null);
                if ($problem !== '') {
                    throw new FormulaProblem($problem, $arithmetic->placeOf($name));
                }
                $used[$name] = true;
            }
        }

        return new self($text, $arithmetic, array_intersect_key($fields, $used), array_intersect_key($calculated, $used));
    }

    private static function problem(string $name, bool $isTime, ?FieldType $type): string
    {
        return match (true) {
            $name === self::PERIOD_END => $isTime ? '' : self::PERIOD_END.' stands in days() and hours() only.',
            $type === null => "There is no field '{$name}'.",
            $isTime && $type !== FieldType::Date && $type !== FieldType::Time => "'{$name}' is neither a date nor a time.",
            ! $isTime && $type !== FieldType::Number => "'{$name}' is no number.",
            default => '',
        };
    }

    /** @return list<string> the fields that it names, calculated ones too */
    public function names(): array
    {
        return [...array_keys($this->fields), ...array_keys($this->calculated)];
    }

    /** @return list<string> the fields that records bring with them and that it is made of */
    public function fields(): array
    {
        return array_values(array_unique([...array_keys($this->fields), ...array_merge([], ...array_map(fn (self $other): array => $other->fields(), array_values($this->calculated)))]));
    }

    /** Whether it depends on the period for which the record is looked at. */
    public function isDated(): bool
    {
        foreach ($this->arithmetic->uses as [, $names]) {
            if (in_array(self::PERIOD_END, $names, true)) {
                return true;
            }
        }

        return array_filter($this->calculated, fn (self $other): bool => $other->isDated()) !== [];
    }

    /**
     * Null where it cannot be worked out: an operand is empty, or a divisor is zero.
     *
     * @param  array<string, Value>  $record
     */
    public function value(array $record, At $at): ?Exact
    {
        try {
            return $this->arithmetic->evaluate(fn (string $function, array $names): Exact => match ($function) {
                self::DAYS => $this->days($record, $names[0], $names[1], $at),
                self::HOURS => $this->days($record, $names[0], $names[1], $at)->times(24),
                self::OR_ZERO => $this->number($record, $names[0], $at) ?? ($this->isFilled($record, $at) ? Exact::of(0) : throw new NoValue('nothing is filled')),
                default => $this->number($record, $names[0], $at) ?? throw new NoValue("{$names[0]} is empty"),
            });
        } catch (NoValue) {
            return null;
        }
    }

    /** @param  array<string, Value>  $record */
    private function number(array $record, string $name, At $at): ?Exact
    {
        if (isset($this->calculated[$name])) {
            return $this->calculated[$name]->value($record, $at);
        }
        $value = $record[$name] ?? null;

        return is_string($value) ? Exact::of($value) : null;
    }

    /**
     * Whether any field that it names has something.
     *
     * @param  array<string, Value>  $record
     */
    private function isFilled(array $record, At $at): bool
    {
        foreach (array_keys($this->fields) as $name) {
            if (($record[$name] ?? null) !== null) {
                return true;
            }
        }

        return array_filter($this->calculated, fn (self $other): bool => $other->value($record, $at) !== null) !== [];
    }

    /**
     * From one to the other: whole days between dates, otherwise exact seconds as days. A date begins at its first local
     * instant; the end of the period is the end of its day.
     *
     * @param  array<string, Value>  $record
     */
    private function days(array $record, string $from, string $to, At $at): Exact
    {
        [$one, $other] = array_map(fn (string $name): Day|Instant => $this->moment($record, $name, $at), [$from, $to]);
        if ($one instanceof Day && $other instanceof Day) {
            return Exact::of($other->number - $one->number);
        }

        return self::instant($other, $to, $at)->exact()->minus(self::instant($one, $from, $at)->exact())->dividedBy(Exact::of(self::SECONDS_A_DAY));
    }

    /** @param  array<string, Value>  $record */
    private function moment(array $record, string $name, At $at): Day|Instant
    {
        $value = $name === self::PERIOD_END ? $at->periodEnd : $record[$name] ?? null;

        return $value instanceof Day || $value instanceof Instant ? $value : throw new NoValue("{$name} is empty");
    }

    private static function instant(Day|Instant $moment, string $name, At $at): Instant
    {
        return $moment instanceof Instant ? $moment : $at->zone->begin($name === self::PERIOD_END ? new Day($moment->number + 1) : $moment);
    }
}
