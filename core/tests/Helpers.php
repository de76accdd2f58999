<?php

declare(strict_types=1);

namespace Kybernet\Core\Tests;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Measure\Targets;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;

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
        Targets::of(TargetLine::of(new Series($targets))),
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
