<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use InvalidArgumentException;
use Kybernet\Core\Measure\Figure;
use Kybernet\Core\Measure\FormulaProblem;

/**
 * A named table of records: what its fields hold, what is calculated from them, and from when to when it is complete.
 *
 * A record is an array of values by field: text, {@see \Brick\Math\BigDecimal} as `string`, {@see Day}, {@see Instant},
 * bool; null is empty.
 *
 * @phpstan-type Value string|Day|Instant|bool|null
 */
final readonly class RecordSet
{
    /**
     * @param  array<string, FieldType>  $fields  by name, in the order of the rows
     * @param  array<string, Expression>  $calculated  by name
     * @param  array<string, string>  $unitNames  codes of units by other names that records give them
     * @param  list<array<string, Value>>  $records
     */
    public function __construct(
        public string $code,
        public array $fields,
        public array $calculated,
        public Coverage $coverage,
        public array $unitNames = [],
        public array $records = [],
    ) {}

    /**
     * What somebody means by a field or an expression.
     *
     * @throws FormulaProblem where it is neither
     */
    public function source(string $text): Source
    {
        return Source::of($text, $this->fields, $this->calculated);
    }

    /**
     * A value as the set keeps it; null where nothing is there. Blanks alone are nothing.
     *
     * @return Value
     *
     * @throws InvalidArgumentException with what is wrong
     */
    public static function value(FieldType $type, string|bool|null $given): string|Day|Instant|bool|null
    {
        if (is_bool($given)) {
            return $type === FieldType::YesNo ? $given : throw new InvalidArgumentException('Yes or no does not stand here.');
        }
        $text = self::trimmed($given ?? '');

        return match (true) {
            $text === '' => null,
            $type === FieldType::Text => $text,
            $type === FieldType::Number => (string) Figure::parse($text),
            $type === FieldType::Date => Day::parse($text),
            $type === FieldType::Time => Instant::parse($text),
            default => throw new InvalidArgumentException("'{$text}' is neither yes nor no."),
        };
    }

    public static function trimmed(string $text): string
    {
        return preg_replace('/\A[\s\p{Z}]+|[\s\p{Z}]+\z/u', '', $text) ?? trim($text);
    }
}
