<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

/**
 * How a condition compares.
 */
enum Operator: string
{
    case Is = 'is';
    case IsNot = 'isNot';
    case OneOf = 'oneOf';
    case NoneOf = 'noneOf';
    case Contains = 'contains';
    case BeginsWith = 'beginsWith';
    case AtLeast = 'atLeast';
    case AtMost = 'atMost';
    case MoreThan = 'moreThan';
    case LessThan = 'lessThan';
    /** both ends are in */
    case Between = 'between';
    case Empty = 'empty';

    /** @return list<self> those that a field of the type can be compared by */
    public static function for(FieldType $type): array
    {
        return match ($type) {
            FieldType::Text => [self::Is, self::IsNot, self::OneOf, self::NoneOf, self::Contains, self::BeginsWith, self::Empty],
            FieldType::YesNo => [self::Is, self::Empty],
            default => [self::Is, self::IsNot, self::AtLeast, self::AtMost, self::MoreThan, self::LessThan, self::Between, self::Empty],
        };
    }

    /** Whether it compares with a list. */
    public function isOfList(): bool
    {
        return $this === self::OneOf || $this === self::NoneOf;
    }
}
