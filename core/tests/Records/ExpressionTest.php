<?php

declare(strict_types=1);

use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Records\At;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Zone;

/* Records: expressions over the fields of one record. */

const FIELDS = ['a' => FieldType::Number, 'b' => FieldType::Number, 'begun' => FieldType::Date, 'ended' => FieldType::Date, 'rang' => FieldType::Time, 'came' => FieldType::Time, 'kind' => FieldType::Text];

/** @param  array<string, string>  $record */
function worked(string $text, array $record, string $zone = 'Europe/London', string $periodEnd = '2026-08-31'): ?string
{
    $values = [];
    foreach ($record as $name => $value) {
        $values[$name] = RecordSet::value(FIELDS[$name], $value);
    }
    $value = Expression::parse($text, FIELDS, ['took' => Expression::parse('days(begun, ended)', FIELDS)])->value($values, new At(new Zone($zone), Day::parse($periodEnd)));

    return $value === null ? null : (string) $value;
}

it('works a number out of a record, exactly', function (string $text, array $record, ?string $expected) {
    expect(worked($text, $record))->toBe($expected);
})->with([
    'arithmetic' => ['a * b / 100', ['a' => '1234.5', 'b' => '60'], '740.7'],
    'whole days between dates, across summer time' => ['days(begun, ended)', ['begun' => '2026-03-28', 'ended' => '2026-03-30'], '2'],
    'backwards' => ['days(begun, ended)', ['begun' => '2026-09-01', 'ended' => '2026-08-31'], '-1'],
    'hours between dates are 24 of a day' => ['hours(begun, ended)', ['begun' => '2026-03-28', 'ended' => '2026-03-30'], '48'],
    'ages' => ['days(begun, periodEnd)', ['begun' => '2026-08-01'], '30'],
    'hours between times, over the day on which clocks go forward' => ['hours(rang, came)', ['rang' => '2026-03-29T00:30:00+00:00', 'came' => '2026-03-29T03:30:00+01:00'], '2'],
    'days between times' => ['days(rang, came)', ['rang' => '2026-08-01T00:00Z', 'came' => '2026-08-01T06:00:00Z'], '0.25'],
    'a date begins at its first local instant' => ['hours(begun, came)', ['begun' => '2026-08-01', 'came' => '2026-08-01T02:00:00Z'], '3'],
    'the end of the period is the end of its day' => ['hours(rang, periodEnd)', ['rang' => '2026-08-31T21:00:00Z'], '2'],
    'thirds stay thirds until they are given out' => ['days(rang, came) * 3', ['rang' => '2026-08-01T00:00:00Z', 'came' => '2026-08-01T08:00:00Z'], '1'],
    'fractions of a second' => ['hours(rang, came) * 3600', ['rang' => '2026-08-01T00:00:00.25Z', 'came' => '2026-08-01T00:00:01Z'], '0.75'],
    'a calculated field' => ['took + 1', ['begun' => '2026-08-01', 'ended' => '2026-08-03'], '3'],
    'a written division is rounded to 12 decimals' => ['a / b * 3', ['a' => '1', 'b' => '3'], '0.999999999999'],
    'an empty operand' => ['a + b', ['a' => '1'], null],
    'an empty date' => ['days(begun, ended)', ['begun' => '2026-08-01'], null],
    'division by zero' => ['a / b', ['a' => '1', 'b' => '0'], null],
    'nothing as nought beside something' => ['orzero(a) + orzero(b)', ['a' => '5'], '5'],
    'nothing beside nothing' => ['orzero(a) + orzero(b)', [], null],
    'nothing beside a filled date' => ['orzero(a) * days(begun, periodEnd)', ['begun' => '2026-08-01'], '0'],
]);

it('knows the day on which clocks go forward at midnight by its first instant', function () {
    // In São Paulo 4 November 2018 began at 01:00 (IANA time zone database).
    $zone = new Zone('America/Sao_Paulo');
    expect($zone->begin(Day::parse('2018-11-04'))->key())->toBe('2018-11-04T03:00:00Z')
        ->and($zone->dayOf(Instant::parse('2018-11-04T02:59:59Z'))->key())->toBe('2018-11-03')
        ->and($zone->dayOf(Instant::parse('2018-11-04T03:00:00Z'))->key())->toBe('2018-11-04');
});

it('puts an instant into the local day that holds it', function (string $zone, string $instant, string $day) {
    expect((new Zone($zone))->dayOf(Instant::parse($instant))->key())->toBe($day);
})->with([
    ['UTC', '2026-08-31T23:30:00Z', '2026-08-31'],
    ['Europe/London', '2026-08-31T22:59:59.999Z', '2026-08-31'],
    ['Europe/London', '2026-08-31T23:00:00Z', '2026-09-01'],
    ['Europe/London', '2026-12-31T23:30:00Z', '2026-12-31'],
    ['Pacific/Kiritimati', '2026-12-31T10:00:00Z', '2027-01-01'],
    ['Pacific/Pago_Pago', '2027-01-01T10:59:00Z', '2026-12-31'],
    ['Asia/Kolkata', '2026-08-31T18:29:59+00:00', '2026-08-31'],
    ['UTC', '2026-09-01T01:30:00+02:00', '2026-08-31'],
    ['UTC', '1969-12-31T23:59:59Z', '1969-12-31'],
]);

it('refuses what is no expression over the fields', function (string $text, string $problem) {
    expect(fn () => Expression::parse($text, FIELDS))->toThrow(FormulaProblem::class, $problem);
})->with([
    ['a + c', "There is no field 'c'. (character 5)"],
    ['kind * 2', "'kind' is no number."],
    ['begun + 1', "'begun' is no number."],
    ['days(a, begun)', "'a' is neither a date nor a time."],
    ['days(begun)', 'days() takes two arguments.'],
    ['days(begun, 3)', 'days() takes two fields.'],
    ['periodEnd * 2', 'periodEnd stands in days() and hours() only.'],
    ['orzero(kind)', "'kind' is no number."],
    ['1 + 1', 'names no field'],
    ['below(a)', 'does not exist'],
    ['a +', 'ends too early'],
]);

it('reads dates and times in one form, and nothing that is none', function (FieldType $type, string $text) {
    expect(fn () => RecordSet::value($type, $text))->toThrow(InvalidArgumentException::class);
})->with([
    [FieldType::Date, '2026-02-29'], [FieldType::Date, '31.08.2026'], [FieldType::Date, '2026-8-1'],
    [FieldType::Time, '2026-08-31T24:00:00Z'], [FieldType::Time, '2026-08-31 10:00:00Z'], [FieldType::Time, '2026-08-31T10:00:00'], [FieldType::Time, '2026-08-31T10:60Z'],
    [FieldType::Number, '1e3'], [FieldType::Number, '1,5'], [FieldType::YesNo, 'yes'],
]);
