<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Exact;

/**
 * One comparison of what a record has with what somebody wrote. What is empty is told by `empty` alone.
 *
 * @phpstan-import-type Value from RecordSet
 */
final readonly class Comparison
{
    /** @param  non-empty-list<string|Day|Instant|bool>  $operands */
    public function __construct(public Source $source, public Operator $operator, public array $operands) {}

    /** @param  array<string, Value>  $record */
    public function holds(array $record, At $at): bool
    {
        $value = $this->source->value($record, $at);
        if ($this->operator === Operator::Empty) {
            return ($value === null) === $this->operands[0];
        }
        if ($value === null) {
            return false;
        }
        $first = $this->operands[0];

        return match ($this->operator) {
            Operator::Is => $this->isLike($value, $first, $at),
            Operator::IsNot => ! $this->isLike($value, $first, $at),
            Operator::OneOf => in_array($value, $this->operands, true),
            Operator::NoneOf => ! in_array($value, $this->operands, true),
            Operator::Contains => is_string($value) && is_string($first) && str_contains($value, $first),
            Operator::BeginsWith => is_string($value) && is_string($first) && str_starts_with($value, $first),
            Operator::AtLeast => self::compare($value, $first, $at) >= 0,
            Operator::AtMost => self::compare($value, $first, $at) <= 0,
            Operator::MoreThan => self::compare($value, $first, $at) > 0,
            Operator::LessThan => self::compare($value, $first, $at) < 0,
            Operator::Between => self::compare($value, $first, $at) >= 0 && self::compare($value, $this->operands[1] ?? $first, $at) <= 0,
        };
    }

    private function isLike(Exact|Day|Instant|string|bool $value, string|Day|Instant|bool $operand, At $at): bool
    {
        return is_string($value) || is_bool($value) ? $value === $operand : self::compare($value, $operand, $at) === 0;
    }

    /** With a date a time is compared by its local date, with a time by the instant. */
    private static function compare(Exact|Day|Instant|string|bool $value, string|Day|Instant|bool $operand, At $at): int
    {
        return match (true) {
            $value instanceof Exact && is_string($operand) => $value->compareTo(Exact::of($operand)),
            $value instanceof Day && $operand instanceof Day => $value->number <=> $operand->number,
            $value instanceof Instant && $operand instanceof Day => $at->zone->dayOf($value)->number <=> $operand->number,
            $value instanceof Instant && $operand instanceof Instant => $value->exact()->compareTo($operand->exact()),
            default => throw new \LogicException('What was read compares like with like.'),
        };
    }
}
