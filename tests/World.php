<?php

declare(strict_types=1);

namespace Tests;

use App\Exchange\ImportWorkbook;
use App\Models\Measurement;
use App\Models\User;
use App\Support\Formats;
use Illuminate\Support\Facades\DB;

/**
 * A small organisation for tests: two departments, a zone, seven people, seven measurements and a few figures. All of it
 * can be seen at once, and nothing of it is in the demonstration.
 *
 *     ORG whole
 *     ├── NORTH department      FLOW (lower, Nora), SALES (total), RATIO = FLOW / SALES, MOOD (judged, Nora), PH (band)
 *     │   └── N1 zone           SALES
 *     └── SOUTH department      FAR (higher)
 *
 * Figures from April to July 2026, the financial year starting in April; nothing is closed.
 */
final class World
{
    /** Everybody by their role, and for which part; the analyst administers besides. */
    public const PEOPLE = ['analyst' => 'ORG', 'executive' => 'ORG', 'head' => 'NORTH', 'owner' => 'NORTH', 'reader' => 'ORG', 'auditor' => 'ORG', 'administrator' => 'ORG'];

    /** Puts it in the place of everything; the test takes it back with its transaction. */
    public static function begin(): void
    {
        // Thousands of figures go faster this way than row by row; the transaction brings them back as well.
        DB::statement('TRUNCATE kpis, period_states CASCADE');
        app(ImportWorkbook::class)(Formats::reader()->read(json_encode(self::workbook(), JSON_THROW_ON_ERROR)));
        // What was read once for a request belongs to the world before.
        app()->forgetScopedInstances();
    }

    public static function person(string $role): User
    {
        return User::query()->where('email', "{$role}@world.example")->firstOrFail();
    }

    public static function id(string $kpi, string $unit): int
    {
        return Measurement::query()->whereRelation('kpi', 'code', $kpi)->whereRelation('unit', 'code', $unit)->firstOrFail()->id;
    }

    /** @return array<string, mixed> */
    private static function workbook(): array
    {
        $kpi = fn (string $code, array $more): array => [
            'code' => $code, 'name' => ucfirst(strtolower($code)), 'kind' => 'entered', 'measure' => 'Ml', 'decimals' => 1, 'frequency' => 'month',
            'accumulation' => 'mean', 'polarity' => 'lower', 'level' => 'departmental', 'department' => 'NORTH',
            'rules' => [['from' => '2025-04', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5']], ...$more,
        ];
        $nora = ['unit' => 'NORTH', 'owner' => 'owner@world.example'];

        return [
            'format' => 'kybernet-workbook', 'version' => 1, 'calendar' => ['yearStartMonth' => 4],
            'people' => array_map(fn (string $role, string $unit): array => ['email' => "{$role}@world.example", 'name' => ucfirst($role), 'role' => $role, 'unit' => $unit, 'further' => $role === 'analyst' ? [['role' => 'administrator']] : []], array_keys(self::PEOPLE), self::PEOPLE),
            'units' => [
                ['code' => 'ORG', 'name' => 'Whole', 'kind' => 'organisation'],
                ['code' => 'NORTH', 'name' => 'North', 'kind' => 'department', 'parent' => 'ORG'],
                ['code' => 'N1', 'name' => 'North one', 'kind' => 'zone', 'parent' => 'NORTH'],
                ['code' => 'SOUTH', 'name' => 'South', 'kind' => 'department', 'parent' => 'ORG'],
            ],
            'objectives' => [], 'themes' => ['Water'],
            'kpis' => [
                $kpi('FLOW', ['min' => '0', 'max' => '1000', 'units' => [$nora]]),
                $kpi('SALES', ['accumulation' => 'sum', 'polarity' => 'higher', 'units' => [['unit' => 'NORTH'], ['unit' => 'N1']]]),
                $kpi('RATIO', ['kind' => 'formula', 'formula' => 'FLOW / SALES', 'accumulation' => 'recompute', 'units' => [['unit' => 'NORTH']]]),
                ['code' => 'MOOD', 'name' => 'Mood', 'kind' => 'judged', 'frequency' => 'month', 'accumulation' => 'latest', 'level' => 'departmental', 'department' => 'NORTH', 'units' => [$nora]],
                $kpi('PH', ['polarity' => 'band', 'units' => [['unit' => 'NORTH']], 'rules' => [['from' => '2025-04', 'reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '0.5']]]),
                $kpi('FAR', ['polarity' => 'higher', 'department' => 'SOUTH', 'units' => [['unit' => 'SOUTH']]]),
            ],
            'readings' => [
                ...self::figures('FLOW', 'NORTH', 'actual', ['10', '11', '12', '13']),
                ...self::figures('SALES', 'NORTH', 'actual', ['100', '100', '100', '100']),
                ...self::figures('FAR', 'SOUTH', 'actual', ['5', '5', '5', '5']),
            ],
            'targets' => self::figures('FLOW', 'NORTH', 'target', ['12', '12', '12', '12']),
        ];
    }

    /**
     * @param  list<string>  $figures  from April 2026 on
     * @return list<array<string, string>>
     */
    private static function figures(string $kpi, string $unit, string $member, array $figures): array
    {
        return array_map(fn (int $at, string $figure): array => ['kpi' => $kpi, 'unit' => $unit, 'period' => sprintf('2026-%02d', 4 + $at), $member => $figure], array_keys($figures), $figures);
    }
}
