<?php

declare(strict_types=1);

use Kybernet\Core\Records\At;
use Kybernet\Core\Records\BadCondition;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Coverage;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Zone;

/* Records: what a record must meet. Three records: one with everything, one with nothing, one that differs. */

function jobs(): RecordSet
{
    $fields = ['kind' => FieldType::Text, 'cost' => FieldType::Number, 'done' => FieldType::Date, 'rang' => FieldType::Time, 'late' => FieldType::YesNo];
    $record = fn (string|bool|null ...$values): array => array_combine(array_keys($fields), array_map(RecordSet::value(...), $fields, $values));

    return new RecordSet('JOBS', $fields, ['half' => Expression::parse('cost / 2', $fields)], new Coverage, [], [
        $record('burst main', '1.0', '2026-08-31', '2026-08-31T23:30:00Z', true),
        $record('  ', null, null, null, null),
        $record('Burst', '20', '2026-09-01', '2026-08-31T22:30:00.5Z', false),
    ]);
}

/** @return list<int> the records that meet it */
function met(array $condition): array
{
    $set = jobs();
    $read = Condition::read($condition, $set);

    return array_keys(array_filter($set->records, fn (array $record): bool => $read->holds($record, new At(new Zone('Europe/London'), Day::parse('2026-08-31')))));
}

it('holds where the comparison does, and never of what is empty', function (array $condition, array $expected) {
    expect(met($condition))->toBe($expected);
})->with([
    [['of' => 'kind', 'is' => 'Burst'], [2]],
    [['of' => 'kind', 'is' => ' Burst '], [2]],
    [['of' => 'kind', 'isNot' => 'Burst'], [0]],
    [['of' => 'kind', 'oneOf' => ['Burst', 'leak']], [2]],
    [['of' => 'kind', 'noneOf' => ['leak', 'burst']], [0, 2]],
    [['of' => 'kind', 'contains' => 'urst'], [0, 2]],
    [['of' => 'kind', 'beginsWith' => 'burst'], [0]],
    [['of' => 'kind', 'empty' => true], [1]],
    [['of' => 'kind', 'empty' => false], [0, 2]],
    [['of' => 'cost', 'is' => '1'], [0]],
    [['of' => 'cost', 'isNot' => '1.00'], [2]],
    [['of' => 'cost', 'atLeast' => '20'], [2]],
    [['of' => 'cost', 'atMost' => '1'], [0]],
    [['of' => 'cost', 'moreThan' => '1'], [2]],
    [['of' => 'cost', 'lessThan' => '1'], []],
    [['of' => 'cost', 'between' => ['1', '20']], [0, 2]],
    [['of' => 'half', 'is' => '0.5'], [0]],
    [['of' => 'cost * 2', 'moreThan' => '2'], [2]],
    [['of' => '1 / (cost - 1)', 'empty' => true], [0, 1]],
    [['of' => 'done', 'is' => '2026-08-31'], [0]],
    [['of' => 'done', 'between' => ['2026-08-31', '2026-09-01']], [0, 2]],
    'a time by its local date' => [['of' => 'rang', 'is' => '2026-09-01'], [0]],
    'a time by its local date, not its UTC one' => [['of' => 'rang', 'atMost' => '2026-08-31'], [2]],
    'a time by the instant, whatever its zone' => [['of' => 'rang', 'is' => '2026-09-01T00:30+01:00'], [0]],
    'a time by its fraction' => [['of' => 'rang', 'moreThan' => '2026-08-31T22:30:00.25Z'], [0, 2]],
    [['of' => 'late', 'is' => false], [2]],
    [['of' => 'late', 'empty' => true], [1]],
    [['any' => [['of' => 'late', 'is' => true], ['of' => 'cost', 'moreThan' => '10']]], [0, 2]],
]);

it('is refused where it means nothing', function (array $condition, string $member, string $problem) {
    try {
        met($condition);
        $told = null;
    } catch (BadCondition $bad) {
        $told = [$bad->member, $bad->kind];
    }
    expect($told)->toBe([$member, $problem]);
})->with([
    [['is' => 'x'], '', 'missing-member'],
    [['of' => 'colour', 'is' => 'x'], 'of', 'formula'],
    [['of' => 'kind'], '', 'missing-member'],
    [['of' => 'cost', 'atLeast' => '1', 'atMost' => '2'], '', 'not-allowed'],
    [['of' => 'cost', 'like' => '1'], '', 'missing-member'],
    [['of' => 'cost', 'contains' => '1'], 'contains', 'not-allowed'],
    [['of' => 'kind', 'atLeast' => 'a'], 'atLeast', 'not-allowed'],
    [['of' => 'late', 'isNot' => true], 'isNot', 'not-allowed'],
    [['of' => 'kind', 'oneOf' => []], 'oneOf', 'empty'],
    [['of' => 'kind', 'oneOf' => 'burst'], 'oneOf', 'wrong-type'],
    [['of' => 'kind', 'oneOf' => ['burst', ' ']], 'oneOf/1', 'malformed'],
    [['of' => 'kind', 'is' => ''], 'is', 'malformed'],
    [['of' => 'kind', 'is' => ['a']], 'is', 'wrong-type'],
    [['of' => 'cost', 'is' => '1,5'], 'is', 'malformed'],
    [['of' => 'cost', 'between' => ['1']], 'between', 'wrong-type'],
    [['of' => 'done', 'is' => '2026-08-31T10:00Z'], 'is', 'malformed'],
    [['of' => 'rang', 'between' => ['2026-08-01', '2026-08-31T10:00Z']], 'between', 'not-allowed'],
    [['of' => 'late', 'is' => 'yes'], 'is', 'malformed'],
    [['of' => 'late', 'empty' => 'no'], 'empty', 'wrong-type'],
    [['any' => []], 'any', 'empty'],
    [['any' => [['of' => 'late', 'is' => true], ['of' => 'cost']]], 'any/1', 'missing-member'],
    [['any' => [['of' => 'late', 'is' => true]], 'of' => 'late'], '', 'not-allowed'],
]);
