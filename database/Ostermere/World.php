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
        'CAP' => ['Capital Delivery', 1], 'PPL' => ['People & Safety', 1], 'FIN' => ['Finance', 1],
    ];

    private const WORKS = [
        'Harrow Lane', 'Stonewell', 'Mirefield', 'Upper Dunnel', 'Coldbeck', 'Ashgrove', 'Saltmarsh Road', 'Kestrel Bank',
    ];

    private const ZONES = [
        'Fenwick', 'Holm Bay', 'Aldermoor', 'Quarrel Hill', 'Sandry', 'Nether Vale', 'Brackwater', 'Tollgate', 'Eastry Head',
        'Ormside', 'Little Marl', 'Pennock',
    ];

    /** @return list<array{code: string, name: string, kind: string, parent: string|null, weight: int}> parents first */
    public static function units(): array
    {
        $units = [['code' => 'OST', 'name' => 'Ostermere Water', 'kind' => 'organisation', 'parent' => null, 'weight' => 1]];
        foreach (self::DEPARTMENTS as $code => [$name, $weight]) {
            $units[] = ['code' => $code, 'name' => $name, 'kind' => 'department', 'parent' => 'OST', 'weight' => $weight];
        }

        return [...$units, ...self::members('works', 'TRT', 'W', self::WORKS), ...self::members('zone', 'NET', 'Z', self::ZONES)];
    }

    /** @return list<string> codes of the units in which a plan is measured */
    public static function unitsOf(Plan $plan): array
    {
        return match ($plan->at) {
            'zones' => array_column(self::members('zone', 'NET', 'Z', self::ZONES), 'code'),
            'works' => array_column(self::members('works', 'TRT', 'W', self::WORKS), 'code'),
            default => [$plan->at],
        };
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
