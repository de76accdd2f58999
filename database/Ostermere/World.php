<?php

declare(strict_types=1);

namespace Database\Ostermere;

/**
 * The units of Ostermere Water, an invented water utility. No name, place or figure is real.
 */
final class World
{
    private const DEPARTMENTS = [
        'TRT' => ['Treatment', 2], 'NET' => ['Network', 2], 'CUS' => ['Customer Service', 1], 'WST' => ['Wastewater', 1],
        'MTR' => ['Metering', 1], 'CAP' => ['Capital Delivery', 1], 'PPL' => ['People & Safety', 1], 'FIN' => ['Finance', 1],
    ];

    private const WORKS = [
        'Harrow Lane', 'Stonewell', 'Mirefield', 'Upper Dunnel', 'Coldbeck', 'Ashgrove', 'Saltmarsh Road', 'Kestrel Bank',
    ];

    private const ZONES = [
        'Fenwick', 'Holm Bay', 'Aldermoor', 'Quarrel Hill', 'Sandry', 'Nether Vale', 'Brackwater', 'Tollgate', 'Eastry Head',
        'Ormside', 'Little Marl', 'Pennock',
    ];

    /** Families of meter models, and how they do beside the others: below 0 better, above 0 worse. */
    public const FAMILIES = [
        'Quill' => -0.9, 'Tarn' => -0.5, 'Weir' => -0.35, 'Ledger' => -0.15, 'Rill' => 0.0, 'Pike' => 0.05, 'Harbour' => 0.2, 'Brook' => 0.3, 'Culver' => 0.55, 'Osier' => 0.9,
    ];

    /** Sizes of a family, in mm. */
    private const SIZES = [15, 20, 25, 32, 40, 50, 65, 80, 100, 150];

    /** @return list<array{code: string, name: string, kind: string, parent: string|null, weight: int}> parents first */
    public static function units(): array
    {
        $units = [['code' => 'OST', 'name' => 'Ostermere Water', 'kind' => 'organisation', 'parent' => null, 'weight' => 1]];
        foreach (self::DEPARTMENTS as $code => [$name, $weight]) {
            $units[] = ['code' => $code, 'name' => $name, 'kind' => 'department', 'parent' => 'OST', 'weight' => $weight];
        }

        return [...$units, ...self::members('works', 'TRT', 'W', self::WORKS), ...self::members('zone', 'NET', 'Z', self::ZONES), ...self::members('meter model', 'MTR', 'M', self::meters())];
    }

    /** @return list<string> codes of the units in which a plan is measured */
    public static function unitsOf(Plan $plan): array
    {
        return match ($plan->at) {
            'zones' => array_column(self::members('zone', 'NET', 'Z', self::ZONES), 'code'),
            'works' => array_column(self::members('works', 'TRT', 'W', self::WORKS), 'code'),
            'meters' => array_column(self::members('meter model', 'MTR', 'M', self::meters()), 'code'),
            default => [$plan->at],
        };
    }

    /** @return list<string> */
    private static function meters(): array
    {
        return array_merge(...array_map(fn (string $family): array => array_map(fn (int $size): string => "{$family} {$size}", self::SIZES), array_keys(self::FAMILIES)));
    }

    /**
     * @param  list<string>  $names
     * @return list<array{code: string, name: string, kind: string, parent: string|null, weight: int}>
     */
    private static function members(string $kind, string $parent, string $prefix, array $names): array
    {
        return array_map(fn (string $name): array => [
            'code' => $prefix.'-'.strtoupper(str_replace(' ', '-', $name)),
            'name' => $name,
            'kind' => $kind,
            'parent' => $parent,
            'weight' => 1,
        ], $names);
    }
}
