<?php

declare(strict_types=1);

namespace Kybernet\Core\Tests;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\SetTargets;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\AssessmentWriter;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\WorkbookReader;

function month(string $key): Period
{
    return Period::parse($key);
}

/** An April year, as in the demonstration world. */
function scorecard(int $startMonth = 4): Scorecard
{
    return new Scorecard(new FinancialYear($startMonth));
}

function percentRule(Polarity $polarity, string $green = '0', string $amber = '5', string $from = '2020-01'): RuleSet
{
    return RuleSet::define($polarity, Accumulation::Mean, month($from), Reference::Target, Deviation::Percent, BigDecimal::of($green), BigDecimal::of($amber));
}

function levelRule(Polarity $polarity, string $green, string $amber, string $from = '2020-01'): RuleSet
{
    return RuleSet::define($polarity, Accumulation::Mean, month($from), Reference::None, Deviation::Level, BigDecimal::of($green), BigDecimal::of($amber));
}

/**
 * @param  list<RuleSet>  $rules
 * @param  array<string, string>  $actuals
 * @param  array<string, string>  $targets
 */
function measured(
    Polarity $polarity = Polarity::Higher,
    Accumulation $accumulation = Accumulation::Sum,
    array $rules = [],
    array $actuals = [],
    array $targets = [],
    string $measure = '',
    int $decimals = 0,
): Measurement {
    return new Measurement(
        new Definition($measure, $decimals, $polarity, $accumulation, $rules),
        new Series($actuals),
        SetTargets::of(TargetLine::of(new Series($targets))),
    );
}

/**
 * One figure a month from the first month on; null leaves a gap.
 *
 * @param  list<string|null>  $figures
 * @return array<string, string>
 */
function monthly(string $first, array $figures): array
{
    $series = [];
    foreach ($figures as $index => $figure) {
        if ($figure !== null) {
            $series[month($first)->plus($index)->key()] = $figure;
        }
    }

    return $series;
}

/** The reader of workbooks, with the schema that ships. */
function reader(): WorkbookReader
{
    $schema = json_decode((string) file_get_contents(__DIR__.'/../../docs/formats/workbook.schema.json'));

    return new WorkbookReader(is_object($schema) ? $schema : throw new \LogicException('The schema is an object.'));
}

/**
 * A workbook of one unit, ORG, with what the parts given add or replace.
 *
 * @param  array<string, mixed>  $parts
 * @return array<string, mixed>
 */
function book(array $parts): array
{
    return [...[
        'format' => 'kybernet-workbook', 'version' => 1, 'calendar' => ['yearStartMonth' => 4],
        'units' => [['code' => 'ORG', 'name' => 'Organisation']],
    ], ...$parts];
}

/**
 * A KPI of a workbook, measured by the month in ORG, more is better, levels of 90 and 80.
 *
 * @param  array<string, mixed>  $members
 * @return array<string, mixed>
 */
function kpi(string $code, array $members = []): array
{
    return [...[
        'code' => $code, 'name' => $code, 'polarity' => 'higher', 'accumulation' => 'mean', 'units' => [['unit' => 'ORG']],
        'rules' => [['from' => '2020-01', 'reference' => 'none', 'measure' => 'level', 'green' => '90', 'amber' => '80']],
    ], ...$members];
}

/**
 * Readings, or targets, of a KPI in ORG, one a period from the first on; null leaves a gap.
 *
 * @param  list<string|null>  $figures
 * @return list<array<string, string>>
 */
function rows(string $kpi, string $first, array $figures, string $member = 'actual', string $unit = 'ORG', Frequency $frequency = Frequency::Month): array
{
    $rows = [];
    foreach ($figures as $index => $figure) {
        if ($figure !== null) {
            $rows[] = ['kpi' => $kpi, 'unit' => $unit, 'period' => Period::parse($first, $frequency)->plus($index)->key(), $member => $figure];
        }
    }

    return $rows;
}

/**
 * What a workbook is judged to be, decoded, with the assessments by KPI and unit: `LEAK NET`.
 *
 * @param  array<string, mixed>  $book
 * @return array<string, mixed>
 */
function assessed(array $book, string $month = '2026-08', Span $span = Span::Month): array
{
    $workbook = reader()->read(json_encode($book, JSON_THROW_ON_ERROR));
    $text = '';
    foreach ((new AssessmentWriter($workbook, month($month), $span))->json() as $piece) {
        $text .= $piece;
    }
    $result = json_decode($text, true, flags: JSON_THROW_ON_ERROR);
    $result['assessments'] = array_column(array_map(
        fn (array $each): array => ["{$each['kpi']} {$each['unit']}", $each],
        $result['assessments'],
    ), 1, 0);

    return $result;
}

/**
 * The problems of a workbook, a line each; none when it can be used.
 *
 * @param  array<string, mixed>|string  $book
 * @return list<string>
 */
function problems(array|string $book): array
{
    try {
        reader()->read(is_string($book) ? $book : json_encode($book, JSON_THROW_ON_ERROR));
    } catch (BadWorkbook $bad) {
        return array_map(fn (Problem $problem): string => $problem->line(), $bad->problems);
    }

    return [];
}

/** A figure of up to 20 digits and 8 decimals, mostly short ones as people have. */
function anyFigure(): string
{
    $digits = mt_rand(1, mt_rand(0, 4) === 0 ? 20 : 6);
    $decimals = mt_rand(0, mt_rand(0, 4) === 0 ? 8 : 2);
    $figure = ltrim(implode('', array_map(fn (): int => mt_rand(0, 9), range(1, $digits))), '0');
    $fraction = $decimals === 0 ? '' : '.'.implode('', array_map(fn (): int => mt_rand(0, 9), range(1, $decimals)));

    return (mt_rand(0, 3) === 0 ? '-' : '').($figure === '' ? '0' : $figure).$fraction;
}
