<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Pace;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;

/**
 * Reads dated rule sets and refuses those that cannot judge.
 */
final class RulesReader
{
    private const BAND_LEVELS = ['low', 'high', 'marginLow', 'marginHigh'];

    /**
     * @param  array<int, Row>  $rows
     * @param  Accumulation|null  $accumulation  of a sound KPI; null leaves what depends on it unsaid
     * @return list<RuleSet>
     */
    public static function read(array $rows, ?Polarity $polarity, ?Accumulation $accumulation): array
    {
        $rules = [];
        $seen = [];
        foreach ($rows as $row) {
            $from = $row->month('from');
            if ($from !== null && isset($seen[$from->key()])) {
                $row->refuse('from', 'duplicate', "A rule set from {$from->key()} on is there already.");
            }
            $seen[$from?->key() ?? ''] = true;
            $rule = self::rule($row, $polarity, $accumulation);
            if ($rule !== null) {
                $rules[] = $rule;
            }
        }

        return $rules;
    }

    private static function rule(Row $row, ?Polarity $polarity, ?Accumulation $accumulation): ?RuleSet
    {
        $from = $row->month('from');
        $reference = $row->choice('reference', Reference::class);
        $measure = $row->choice('measure', Deviation::class);
        if ($polarity === null || $accumulation === null || $reference === null || $measure === null) {
            return null;
        }
        if ($polarity === Polarity::Band && $measure === Deviation::Level && $reference === Reference::None) {
            return self::band($row);
        }
        foreach (self::BAND_LEVELS as $member) {
            if ($row->has($member)) {
                $row->refuse($member, 'not-allowed', 'Only the level of a band has this.');
            }
        }
        $green = $row->figure('green');
        $amber = $row->figure('amber');
        foreach (['green', 'amber'] as $member) {
            if (! $row->has($member)) {
                $row->refuse('', 'missing-member', "The limit '{$member}' is missing.");
            }
        }
        // What is wrong with the pairing is told even where a limit is unreadable.
        $limit = $green ?? $amber ?? BigDecimal::zero();
        $pace = $row->has('pace') ? $row->choice('pace', Pace::class) : null;
        $arguments = [$polarity, $accumulation, $reference, $measure, $green ?? $limit, $amber ?? $limit, $row->integer('periods'), $row->figure('stretch'), $pace];
        $problems = RuleSet::problems(...$arguments);
        foreach ($problems as $member => $problem) {
            $row->refuse($member === 'polarity' || ! $row->has($member) ? '' : $member, $member === 'amber' ? 'limits' : 'pairing', $problem);
        }

        return $problems !== [] || $from === null || $green === null || $amber === null
            ? null
            : RuleSet::define($polarity, $accumulation, $from, $reference, $measure, $green, $amber, $row->integer('periods'), $row->figure('stretch'), $pace);
    }

    private static function band(Row $row): ?RuleSet
    {
        foreach (['green', 'amber', 'stretch', 'periods', 'pace'] as $member) {
            if ($row->has($member)) {
                $row->refuse($member, 'not-allowed', 'The level of a band has low, high and two margins instead.');
            }
        }
        $levels = [];
        foreach (self::BAND_LEVELS as $member) {
            $levels[] = $row->figure($member);
            if (! $row->has($member)) {
                $row->refuse('', 'missing-member', "The member '{$member}' is missing.");
            }
        }
        [$low, $high, $marginLow, $marginHigh] = $levels;
        if ($low === null || $high === null || $marginLow === null || $marginHigh === null) {
            return null;
        }
        $problems = RuleSet::bandProblems($low, $high, $marginLow, $marginHigh);
        foreach ($problems as $member => $problem) {
            $row->refuse($member, 'limits', $problem);
        }
        $from = $row->month('from');

        return $problems !== [] || $from === null ? null : RuleSet::defineBand($from, $low, $high, $marginLow, $marginHigh);
    }
}
