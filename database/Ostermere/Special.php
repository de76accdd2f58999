<?php

declare(strict_types=1);

namespace Database\Ostermere;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * The KPIs of the demonstration that are more than a monthly figure against a target: bands, formulas, a judgement,
 * weeks, quarters, a year, and a figure gathered over zones.
 */
final class Special
{
    /** Columns that most of them share. */
    private const PLAIN = ['decimals' => 0, 'scaled' => false, 'level' => 'departmental', 'kind' => 'entered', 'frequency' => 'month', 'polarity' => 'lower', 'accumulation' => 'mean'];

    /**
     * @return list<array{unit: string, theme: string, columns: array<string, mixed>, rule: array<string, mixed>|null}>
     */
    public static function kpis(): array
    {
        return [
            self::kpi('NET', 'Leakage and mains', ['code' => 'SYS-IN', 'name' => 'Water into the network', 'purpose' => 'Metered volume that entered the network.', 'measure' => 'Ml', 'polarity' => 'none', 'accumulation' => 'sum']),
            self::kpi('NET', 'Leakage and mains', ['code' => 'BILLED', 'name' => 'Water billed', 'purpose' => 'Volume billed to households and businesses.', 'measure' => 'Ml', 'polarity' => 'none', 'accumulation' => 'sum']),
            self::kpi('NET', 'Leakage and mains', ['code' => 'NRW', 'name' => 'Water that earns nothing', 'purpose' => 'Share of the water put in that is not billed.', 'measure' => '%', 'decimals' => 1, 'kind' => 'formula', 'accumulation' => 'recompute', 'formula' => '("SYS-IN" - BILLED) / "SYS-IN" * 100'],
                ['reference' => 'none', 'measure' => 'level', 'green' => '17', 'amber' => '18.5', 'stretch' => '15']),
            self::kpi('NET', 'Supply', ['code' => 'INLET', 'name' => 'Pressure at district inlets', 'purpose' => 'Mean pressure of the district inlets: too little fails customers, too much breaks mains.', 'measure' => 'bar', 'decimals' => 2, 'polarity' => 'band'],
                ['reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '0.15']),
            self::kpi('NET', 'Leakage and mains', ['code' => 'BALANCE', 'name' => 'Water balance closed', 'purpose' => 'Whether the month\'s balance of the network was closed and agreed with Treatment.', 'kind' => 'judged', 'polarity' => 'none', 'accumulation' => 'latest',
                'text_green' => 'Closed and agreed by the eighth', 'text_amber' => 'Closed, with an open question under 1 %', 'text_red' => 'Not closed, or a question over 1 %']),
            // What it may cost follows the water that is pumped: £14.20 a megalitre.
            self::kpi('NET', 'Supply', ['code' => 'PUMP-COST', 'name' => 'Cost of pumping', 'purpose' => 'Electricity for pumping water into the network; what it may cost follows the water that is pumped.', 'measure' => '£', 'accumulation' => 'sum', 'target_formula' => '14.2 * "SYS-IN"'],
                ['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '3']),
            self::kpi('CUS', 'Customers', ['code' => 'WAITING', 'name' => 'Enquiries waiting', 'purpose' => 'Written enquiries without an answer at the end of the week.', 'measure' => 'enquiries', 'frequency' => 'week', 'accumulation' => 'latest'],
                ['reference' => 'none', 'measure' => 'level', 'green' => '260', 'amber' => '320']),
            self::kpi('FIN', 'Money', ['code' => 'AUDIT', 'name' => 'Audit actions closed', 'purpose' => 'Actions from audits that were closed in the quarter.', 'measure' => 'actions', 'frequency' => 'quarter', 'polarity' => 'higher', 'accumulation' => 'sum'],
                ['reference' => 'target', 'measure' => 'reached', 'green' => '100', 'amber' => '80']),
            self::kpi('PPL', 'People', ['code' => 'ENGAGED', 'name' => 'Staff who would recommend us', 'purpose' => 'Share of answers to the yearly survey that would recommend Ostermere as a place to work.', 'measure' => '%', 'frequency' => 'year', 'polarity' => 'higher', 'accumulation' => 'latest'],
                ['reference' => 'prior-year', 'measure' => 'absolute', 'green' => '0', 'amber' => '2']),
        ];
    }

    /** @return array<string, string> actuals, or the colours of a judged KPI, by period */
    public static function actuals(string $code): array
    {
        $months = Period::parse(Story::FIRST_MONTH)->to(Period::parse(Story::LAST_MONTH));
        $figures = [];
        foreach ($months as $index => $month) {
            $season = cos(2 * M_PI * ($month->monthOfYear() - 7) / 12);
            $wobble = sin($index * 2.3) + cos($index * 1.7);
            $pumped = (int) round(8_860 + 320 * $season + 40 * $wobble);
            $figures[$month->key()] = match ($code) {
                'SYS-IN' => (string) $pumped,
                'BILLED' => (string) (int) round((8_860 + 320 * $season) * (0.836 + 0.0005 * $index - ($index > 24 ? 0.006 * ($index - 24) : 0)) + 18 * $wobble),
                'PUMP-COST' => (string) (int) round($pumped * (13.95 + 0.16 * sin($index * 1.3) + ($index > 26 ? 0.26 * ($index - 26) : 0))),
                'INLET' => number_format(2.72 - 0.18 * $season + 0.06 * $wobble - ($month->key() === '2026-07' ? 0.42 : 0), 2, '.', ''),
                'BALANCE' => ['2025-02' => 'red', '2025-03' => 'amber', '2026-05' => 'amber', '2026-06' => 'red', '2026-07' => 'amber'][$month->key()] ?? 'green',
                default => '',
            };
        }
        if ($code === 'BALANCE') {
            unset($figures['2026-08']);
        }

        return match ($code) {
            'WAITING' => self::weeks(),
            'AUDIT' => array_combine(['FY2024-Q1', 'FY2024-Q2', 'FY2024-Q3', 'FY2024-Q4', 'FY2025-Q1', 'FY2025-Q2', 'FY2025-Q3', 'FY2025-Q4', 'FY2026-Q1'], ['14', '17', '12', '19', '15', '18', '16', '21', '11']),
            'ENGAGED' => ['FY2024' => '64', 'FY2025' => '66'],
            'NRW' => [],
            default => $figures,
        };
    }

    /** @return array<string, array{string, string|null}> target, or the two ends of a band, by period */
    public static function targets(string $code): array
    {
        $targets = [];
        foreach (Period::parse(Story::FIRST_MONTH)->to(Period::parse('2027-03')) as $month) {
            if ($code === 'INLET') {
                $targets[$month->key()] = ['2.40', '3.10'];
            }
        }
        if ($code === 'AUDIT') {
            foreach (['FY2024', 'FY2025', 'FY2026'] as $year) {
                foreach ([14, 16, 15, 18] as $index => $target) {
                    $targets["{$year}-Q".($index + 1)] = [(string) $target, null];
                }
            }
        }

        return $targets;
    }

    /** @return array<string, string> reasons by period */
    public static function notes(string $code): array
    {
        return match ($code) {
            'BALANCE' => array_map(fn (string $colour): string => match ($colour) {
                'green' => 'Closed with Treatment on time.',
                'amber' => 'One inlet meter of the east side is in question; the balance stands within 1 %.',
                default => 'The inlet meter at Fenwick read nothing for nine days.',
            }, self::actuals('BALANCE')),
            'INLET' => ['2026-07' => 'The booster at Quarrel Hill was off for a week; pressure was low on the high side.'],
            'AUDIT' => ['FY2026-Q1' => 'Two reviewers left in April; their actions wait for the new ones.'],
            default => [],
        };
    }

    /** @return array<string, string> */
    private static function weeks(): array
    {
        $weeks = [];
        foreach (Period::parse('2025-W14', Frequency::Week)->to(Period::parse('2026-W35', Frequency::Week)) as $index => $week) {
            $weeks[$week->key()] = (string) (int) round(228 + 26 * sin($index / 4.1) + 14 * cos($index * 1.9) + ($index > 40 && $index < 56 ? 95 * sin(($index - 40) / 16 * M_PI) : 0));
        }

        return $weeks;
    }

    /**
     * @param  array<string, mixed>  $columns
     * @param  array<string, mixed>|null  $rule
     * @return array{unit: string, theme: string, columns: array<string, mixed>, rule: array<string, mixed>|null}
     */
    private static function kpi(string $unit, string $theme, array $columns, ?array $rule = null): array
    {
        return ['unit' => $unit, 'theme' => $theme, 'columns' => $columns + self::PLAIN, 'rule' => $rule];
    }
}
