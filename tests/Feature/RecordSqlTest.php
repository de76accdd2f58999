<?php

declare(strict_types=1);

use App\Records\RecordTable;
use App\Records\RecordTally;
use Brick\Math\BigDecimal;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Band;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Counting;
use Kybernet\Core\Records\Coverage;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\Operator;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\Zone;

/*
 * One definition, counted twice: by the core on plain values, and by the database from the text that the definition is
 * compiled to. Definitions and records are made up at random, with what is rare made common: empty fields, ties, zeros,
 * midnights, days on which clocks change.
 */

const COLUMNS = ['kind' => 'text', 'cost' => 'numeric', 'part' => 'numeric', 'begun' => 'date', 'ended' => 'date', 'rang' => 'timestamptz', 'came' => 'timestamptz', 'late' => 'boolean'];

const TYPES = ['kind' => FieldType::Text, 'cost' => FieldType::Number, 'part' => FieldType::Number, 'begun' => FieldType::Date, 'ended' => FieldType::Date, 'rang' => FieldType::Time, 'came' => FieldType::Time, 'late' => FieldType::YesNo];

/** @param  list<mixed>  $from */
function one(array $from): mixed
{
    return $from[mt_rand(0, count($from) - 1)];
}

function anyDay(): string
{
    // The days around changes of clocks, and around ends of months and years, of 2026 and 2018 alike.
    return one([sprintf('2026-%02d-%02d', mt_rand(1, 12), mt_rand(1, 28)), '2026-03-28', '2026-03-29', '2026-10-24', '2026-10-25', '2026-10-26', '2026-08-31', '2026-09-01', '2026-12-31', '2026-02-15']);
}

function anyInstant(): string
{
    return anyDay().sprintf('T%02d:%02d:%02d', one([0, 0, 1, 2, 3, 22, 23, mt_rand(0, 23)]), one([0, 0, 30, 59]), one([0, 0, 59])).one(['', '', '.5', '.000001', '.999999']).one(['Z', 'Z', '+01:00', '-03:00']);
}

function anyNumber(): string
{
    return one(['0', '1', '2', '3', '-1', '0.5', '1.0', (string) mt_rand(-50, 50), mt_rand(0, 9).'.'.mt_rand(0, 99), '12345678901234567890.12345678']);
}

/** @return array<string, string|bool|null> */
function anyRecord(): array
{
    $maybe = fn (string|bool $value): string|bool|null => mt_rand(0, 4) === 0 ? null : $value;

    return ['kind' => $maybe(one(['burst', 'Burst', 'leak', "o'ring", 'ü'])), 'cost' => $maybe(anyNumber()), 'part' => $maybe(anyNumber()), 'begun' => $maybe(anyDay()), 'ended' => $maybe(anyDay()), 'rang' => $maybe(anyInstant()), 'came' => $maybe(anyInstant()), 'late' => $maybe(mt_rand(0, 1) === 1)];
}

function anyExpression(int $depth = 3): string
{
    $moment = fn (): string => one(['begun', 'ended', 'rang', 'came', 'periodEnd']);
    $inner = fn (): string => anyExpression($depth - 1);
    if ($depth === 0 || mt_rand(0, 3) === 0) {
        return one(['cost', 'part', 'double', 'took', (string) mt_rand(0, 9), mt_rand(0, 9).'.25']);
    }

    return match (mt_rand(0, 9)) {
        0, 1 => "({$inner()} + {$inner()})",
        2 => "({$inner()} - {$inner()})",
        3 => "{$inner()} * {$inner()}",
        4 => "({$inner()} / {$inner()})",
        5 => one(['min', 'max', 'sum', 'avg'])."({$inner()}, {$inner()}, {$inner()})",
        6 => one(['abs', '-abs'])."({$inner()})",
        7 => 'orzero('.one(['cost', 'part', 'double', 'took']).')',
        default => one(['days', 'hours'])."({$moment()}, {$moment()})",
    };
}

/** @return array<string, mixed> */
function anyCondition(RecordSet $set, bool $maybeAny = true): array
{
    if ($maybeAny && mt_rand(0, 4) === 0) {
        return ['any' => array_map(fn (): array => anyCondition($set, false), range(1, mt_rand(1, 3)))];
    }
    while (true) {
        $of = mt_rand(0, 2) === 0 ? anyExpression(2) : one(array_keys(TYPES));
        try {
            $type = $set->source($of)->type;
        } catch (InvalidArgumentException) {
            // A number alone names no field.
            continue;
        }
        $operator = one(Operator::for($type));
        $isDay = mt_rand(0, 1) === 0;
        $value = fn (): string|bool => match ($type) {
            FieldType::Text => one(['burst', 'leak', 'u', "o'", 'B', 'ü']),
            FieldType::Number => anyNumber(),
            FieldType::Date => anyDay(),
            FieldType::Time => $isDay ? anyDay() : anyInstant(),
            FieldType::YesNo => mt_rand(0, 1) === 1,
        };

        return ['of' => $of, $operator->value => match (true) {
            $operator === Operator::Empty => mt_rand(0, 1) === 1,
            $operator === Operator::Between => [$value(), $value()],
            $operator->isOfList() => array_map($value, range(1, mt_rand(1, 3))),
            default => $value(),
        }];
    }
}

function anyCounted(RecordSet $set): Counted
{
    $take = one(Take::cases());
    $conditions = fn (int $most): array => array_map(fn (): Condition => Condition::read(anyCondition($set), $set), $most === 0 ? [] : range(1, $most));
    do {
        $text = $take === Take::Distinct ? one(array_keys(TYPES)) : anyExpression();
    } while ($take->isOfValues() && ! isset(TYPES[$text]) && preg_match('/[a-z]{4}/', $text) !== 1);

    return new Counted(
        'SET', $take, $take->isOfValues() ? $set->source($text) : null, $take === Take::Percentile ? BigDecimal::of(one(['0', '10', '25', '33.3', '90', '99.9', '100'])) : null,
        $take === Take::Share ? $conditions(mt_rand(1, 2)) : [], one(['begun', 'rang', 'ended', 'came']), $take === Take::Open ? one(['ended', 'came']) : null, null, $conditions(mt_rand(0, 2)),
    );
}

function anySplit(RecordSet $set): Split
{
    $of = one([...array_keys(TYPES), 'double', 'took', 'days(begun, periodEnd)']);
    $isNumber = $set->source($of)->type === FieldType::Number;

    return new Split('S', 'S', $set->source($of), $isNumber && mt_rand(0, 1) === 0 ? [new Band(BigDecimal::of('1'), 'few'), new Band(BigDecimal::of('10.5'), 'some'), ...(mt_rand(0, 1) === 0 ? [new Band(null, 'many')] : [])] : []);
}

it('counts in the database what the core counts, for any definition, records and clock', function (string $zoneName, int $seed) {
    mt_srand($seed);
    $calculated = ['double' => Expression::parse('cost * 2 - part', TYPES), 'took' => Expression::parse('hours(rang, came)', TYPES)];
    [$zone, $year] = [new Zone($zoneName), new FinancialYear(4)];
    DB::statement('CREATE TEMPORARY TABLE trial ('.implode(', ', array_map(fn (string $field, string $type): string => "f_{$field} {$type}", array_keys(COLUMNS), COLUMNS)).') ON COMMIT DROP');
    $columns = array_combine(array_keys(COLUMNS), array_map(fn (string $field): string => "f_{$field}", array_keys(COLUMNS)));
    $differences = [];
    $figures = 0;
    for ($set = 0; $set < 5; $set++) {
        $records = array_map(fn (): array => array_combine(array_keys(TYPES), array_map(RecordSet::value(...), TYPES, anyRecord())), range(1, one([1, 30, 60, 90])));
        DB::statement('DELETE FROM trial');
        DB::table('trial')->insert(array_map(fn (array $record): array => array_combine($columns, array_map(fn (mixed $value): mixed => $value instanceof Day || $value instanceof Instant ? $value->key() : $value, array_values($record))), $records));
        $records = new RecordSet('SET', TYPES, $calculated, new Coverage, [], $records);
        $tally = new RecordTally(DB::connection(), $records, new RecordTable('trial', $columns), $zone);
        for ($definition = 0; $definition < 120; $definition++) {
            $counted = anyCounted($records);
            $first = Period::month(2026, mt_rand(1, 9));
            $periods = $first->to($first->plus(mt_rand(0, 3)));
            $counts = (new Counting($records, $counted, $zone, $year, Frequency::Month, []))->counts([]);
            $told = fn (Count $count): array => [$count->records, $count->empty, $count->met, $count->figure($counted->take)?->__toString()];
            $expected = [$told($counts->together($periods)), ...array_map(fn (Period $period): array => $told($counts->in($period)), $periods)];
            $days = array_map($year->days(...), $periods);
            $each = $tally->each($counted, array_map(fn (array $period): array => [$period], $days))[0] ?? [];
            $given = [$told($tally->of($counted, $days)), ...array_map(fn (int $at): array => $told($each[$at] ?? new Count), array_keys($periods))];
            $figures += $expected[0][0] > 0 ? 1 : 0;
            if ($given !== $expected) {
                $differences[] = json_encode([$counted->take->value, $counted->of?->text, array_column($counted->where, 'members'), array_column($counted->met, 'members'), $counted->datedBy, $first->key(), 'core' => $expected, 'database' => $given]);
            }
            $split = anySplit($records);
            $parts = fn (array $parts): array => array_map(fn (array $part): array => [$part[0], ...$told($part[1])], $parts);
            $sorted = function (array $parts): array {
                usort($parts, fn (array $one, array $other): int => strcmp(json_encode($one, JSON_THROW_ON_ERROR), json_encode($other, JSON_THROW_ON_ERROR)));

                return $parts;
            };
            [$expected, $given] = [$sorted($parts($counts->parts($split, $periods))), $sorted(array_map(fn (array $part): array => [$part[0], $part[1], 0, $part[3], $part[4]], $parts($tally->parts($counted, $split, $days, null, []))))];
            if ($given !== $expected) {
                $differences[] = json_encode(['split' => $split->of->text, $counted->take->value, $counted->of?->text, 'core' => $expected, 'database' => $given]);
            }
        }
    }
    expect($differences)->toBe([])->and($figures)->toBeGreaterThan(100);
})->with([['UTC', 1], ['Europe/London', 2], ['Atlantic/Azores', 3], ['America/Sao_Paulo', 4], ['Asia/Kolkata', 5], ['America/Havana', 6]]);
