<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use InvalidArgumentException;
use Kybernet\Core\Measure\FormulaProblem;

/**
 * What a record must meet: one comparison, or one of several.
 *
 * @phpstan-import-type Value from RecordSet
 */
final readonly class Condition
{
    private const OF = 'of';

    private const ANY = 'any';

    /**
     * @param  array<array-key, mixed>  $members  as a workbook has them
     * @param  non-empty-list<Comparison>  $comparisons  of which one must hold
     */
    private function __construct(public array $members, public array $comparisons) {}

    /**
     * @param  array<array-key, mixed>  $members  as a workbook has them
     *
     * @throws BadCondition
     */
    public static function read(array $members, RecordSet $set): self
    {
        if (! array_key_exists(self::ANY, $members)) {
            return new self($members, [self::comparison($members, $set, '')]);
        }
        if (count($members) > 1) {
            throw new BadCondition('', 'not-allowed', "A condition is either 'any' of several or one comparison.");
        }
        $several = is_array($members[self::ANY]) ? array_values($members[self::ANY]) : [];
        if ($several === []) {
            throw new BadCondition(self::ANY, 'empty', 'One of none can never hold.');
        }

        return new self($members, array_map(fn (mixed $each, int $at): Comparison => self::comparison(is_array($each) ? $each : [], $set, self::ANY."/{$at}/"), $several, array_keys($several)));
    }

    /** Whether it depends on the period for which the record is looked at. */
    public function isDated(): bool
    {
        return array_filter($this->comparisons, fn (Comparison $comparison): bool => $comparison->source->isDated()) !== [];
    }

    /** @param  array<string, Value>  $record */
    public function holds(array $record, At $at): bool
    {
        foreach ($this->comparisons as $comparison) {
            if ($comparison->holds($record, $at)) {
                return true;
            }
        }

        return false;
    }

    /** @param  array<array-key, mixed>  $members */
    private static function comparison(array $members, RecordSet $set, string $path): Comparison
    {
        $of = $members[self::OF] ?? null;
        if (! is_string($of) || trim($of) === '') {
            throw new BadCondition(rtrim($path, '/'), 'missing-member', "The member 'of' is missing.");
        }
        try {
            $source = $set->source(trim($of));
        } catch (FormulaProblem $problem) {
            throw new BadCondition($path.self::OF, 'formula', $problem->getMessage());
        }
        $names = array_values(array_diff(array_map(strval(...), array_keys($members)), [self::OF]));
        $operator = Operator::tryFrom($names[0] ?? '');
        if (count($names) !== 1 || $operator === null) {
            throw new BadCondition(rtrim($path, '/'), count($names) > 1 ? 'not-allowed' : 'missing-member', 'A condition compares in one way.');
        }
        if (! in_array($operator, Operator::for($source->type), true)) {
            throw new BadCondition($path.$operator->value, 'not-allowed', "What is {$source->type->value} is not compared by '{$operator->value}'.");
        }

        return new Comparison($source, $operator, self::operands($members[$operator->value], $source->type, $operator, $path.$operator->value));
    }

    /** @return non-empty-list<string|Day|Instant|bool> */
    private static function operands(mixed $given, FieldType $type, Operator $operator, string $path): array
    {
        if ($operator === Operator::Empty) {
            return [is_bool($given) ? $given : throw new BadCondition($path, 'wrong-type', 'Empty is true or false.')];
        }
        $isList = $operator->isOfList() || $operator === Operator::Between;
        if ($isList !== (is_array($given) && array_is_list($given)) || ($operator === Operator::Between && is_array($given) && count($given) !== 2)) {
            throw new BadCondition($path, 'wrong-type', $operator === Operator::Between ? 'It lies between two ends.' : ($isList ? 'A list stands here.' : 'One value stands here.'));
        }
        $operands = [];
        foreach (is_array($given) ? array_values($given) : [$given] as $at => $each) {
            $operands[] = self::operand($each, $type, $isList ? "{$path}/{$at}" : $path);
        }
        if ($operands === []) {
            throw new BadCondition($path, 'empty', 'The list is empty.');
        }
        if ($operator === Operator::Between && $operands[0] instanceof Instant !== $operands[1] instanceof Instant) {
            throw new BadCondition($path, 'not-allowed', 'Both ends are dates, or both are times.');
        }

        return $operands;
    }

    private static function operand(mixed $given, FieldType $type, string $path): string|Day|Instant|bool
    {
        try {
            $value = is_string($given) || is_bool($given)
                ? RecordSet::value($type === FieldType::Time && is_string($given) && ! str_contains($given, 'T') ? FieldType::Date : $type, $given)
                : throw new InvalidArgumentException('A text stands here.');
        } catch (InvalidArgumentException $problem) {
            throw new BadCondition($path, 'malformed', $problem->getMessage());
        }

        return $value ?? throw new BadCondition($path, 'malformed', "Nothing is compared with what is blank: say 'empty'.");
    }
}
