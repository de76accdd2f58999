<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\FormulaProblem;

/**
 * What of a record is meant: a field, a calculated one, or an expression.
 *
 * @phpstan-import-type Value from RecordSet
 */
final readonly class Source
{
    private function __construct(public string $text, public FieldType $type, public ?Expression $expression) {}

    /**
     * @param  array<string, FieldType>  $fields
     * @param  array<string, Expression>  $calculated
     *
     * @throws FormulaProblem where it is none of them
     */
    public static function of(string $text, array $fields, array $calculated): self
    {
        return match (true) {
            isset($fields[$text]) => new self($text, $fields[$text], null),
            isset($calculated[$text]) => new self($text, FieldType::Number, $calculated[$text]),
            preg_match('/\A[A-Za-z][A-Za-z0-9_]*\z/', $text) === 1 => throw new FormulaProblem("There is no field '{$text}'.", null),
            default => new self($text, FieldType::Number, Expression::parse($text, $fields, $calculated)),
        };
    }

    /** @return list<string> the field that it is, or those that it is made of */
    public function fields(): array
    {
        return $this->expression === null ? [$this->text] : $this->expression->fields();
    }

    /** Whether it depends on the period for which the record is looked at. */
    public function isDated(): bool
    {
        return $this->expression?->isDated() === true;
    }

    /**
     * Null where it is empty or cannot be worked out.
     *
     * @param  array<string, Value>  $record
     */
    public function value(array $record, At $at): Exact|Day|Instant|string|bool|null
    {
        if ($this->expression !== null) {
            return $this->expression->value($record, $at);
        }
        $value = $record[$this->text] ?? null;

        return $this->type === FieldType::Number && is_string($value) ? Exact::of($value) : $value;
    }

    /**
     * The same value always as the same text: numbers as numbers, text by its characters.
     */
    public static function text(Exact|Day|Instant|string|bool $value): string
    {
        return match (true) {
            $value instanceof Exact => (string) $value,
            $value instanceof Day, $value instanceof Instant => $value->key(),
            is_bool($value) => $value ? 'yes' : 'no',
            default => $value,
        };
    }
}
