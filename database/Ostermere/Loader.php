<?php

declare(strict_types=1);

namespace Database\Ostermere;

use App\Models\Theme;
use App\Models\Unit;
use App\Models\User;
use App\Support\Month;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;

/**
 * Writes the demonstration into an empty database, all or nothing.
 */
final readonly class Loader
{
    private const CHUNK = 2_000;

    public function __construct(private Connection $database) {}

    public function load(): void
    {
        $this->database->transaction(function (): void {
            $units = $this->units();
            $owners = $this->people($units);
            foreach (Catalogue::THEMES as $position => $name) {
                Theme::query()->create(['name' => $name, 'position' => $position + 1]);
            }
            $themes = Theme::query()->pluck('id', 'name')->all();
            $readings = [];
            $targets = [];
            $measured = [];
            foreach (Catalogue::plans() as $position => $plan) {
                $kpi = $this->kpi($plan, $units, $themes);
                foreach (World::unitsOf($plan) as $unit) {
                    $owner = $owners[$plan->answers()];
                    $id = $this->database->table('kpi_unit')->insertGetId([
                        'kpi_id' => $kpi, 'unit_id' => $units[$unit], 'owner_id' => $owner, 'weight' => $plan->weight, 'position' => $position + 1,
                    ]);
                    $measured[$plan->code][$unit] = ['id' => $id, 'owner' => $owner];
                    $figures = new Figures($plan, $unit);
                    foreach ($figures->actuals() as $month => $actual) {
                        $readings[] = ['kpi_unit_id' => $id, 'period' => "{$month}-01", 'actual' => $actual, 'version' => 1, 'entered_by' => $owner] + $this->stamps($month);
                    }
                    foreach ($figures->targets() as $month => $target) {
                        $targets[] = ['kpi_unit_id' => $id, 'period' => "{$month}-01", 'target' => $target];
                    }
                }
            }
            $this->insert('readings', $readings);
            $this->insert('targets', $targets);
            $this->insert('notes', $this->notes($measured));
        });
        // A planner that knows nothing of fresh tables would read them row by row.
        $this->database->statement('ANALYZE');
    }

    /** @return array<string, int> identities by code */
    private function units(): array
    {
        $ids = [];
        foreach (World::units() as $position => $unit) {
            $ids[$unit['code']] = Unit::query()->create([
                'code' => $unit['code'],
                'name' => $unit['name'],
                'kind' => $unit['kind'],
                'parent_id' => $unit['parent'] === null ? null : $ids[$unit['parent']],
                'weight' => $unit['weight'],
                'position' => $position,
            ])->id;
        }

        return $ids;
    }

    /**
     * @param  array<string, int>  $units
     * @return array<string, int> the data owner of each department
     */
    private function people(array $units): array
    {
        $people = [];
        foreach ([...Accounts::all(), ...Accounts::owners()] as $account) {
            $people[$account['email']] ??= User::query()->create([
                'name' => $account['name'],
                'email' => $account['email'],
                'password' => Accounts::PASSWORD,
                'role' => $account['role'],
                'unit_id' => $units[$account['unit']],
            ])->id;
        }

        return array_map(fn (array $account): int => $people[$account['email']], Accounts::owners());
    }

    /**
     * @param  array<string, int>  $units
     * @param  array<array-key, int>  $themes
     */
    private function kpi(Plan $plan, array $units, array $themes): int
    {
        $kpi = $this->database->table('kpis')->insertGetId([
            'code' => $plan->code, 'name' => $plan->name, 'purpose' => $plan->purpose, 'measure' => $plan->measure,
            'decimals' => $plan->decimals, 'scaled' => $plan->scaled, 'department_id' => $units[$plan->department()],
            'theme_id' => $themes[$plan->theme], 'level' => $plan->level(), 'polarity' => $plan->polarity,
            'accumulation' => $plan->accumulation,
        ] + $this->stamps(Story::FIRST_MONTH));
        [$measure, $green, $amber] = $plan->rule;
        if ($measure !== '') {
            $this->database->table('rule_sets')->insert([
                'kpi_id' => $kpi, 'valid_from' => Month::date(Period::parse(Story::FIRST_MONTH)),
                'reference' => $measure === 'level' ? 'none' : 'target', 'measure' => $measure, 'green' => $green, 'amber' => $amber,
            ]);
        }

        return $kpi;
    }

    /**
     * @param  array<string, array<string, array{id: int, owner: int}>>  $measured
     * @return list<array<string, mixed>>
     */
    private function notes(array $measured): array
    {
        $notes = [];
        foreach (Story::events() as [$kpi, $unit, $month, , $text]) {
            if ($text !== '') {
                $place = $measured[$kpi][$unit];
                $notes[] = ['kpi_unit_id' => $place['id'], 'period' => "{$month}-01", 'text' => $text, 'version' => 1, 'author_id' => $place['owner']] + $this->stamps($month);
            }
        }

        return $notes;
    }

    /** @return array{created_at: string, updated_at: string} the fifth day of the next month, when returns are made */
    private function stamps(string $month): array
    {
        $day = Period::parse($month)->plus(1)->key().'-05T10:00:00Z';

        return ['created_at' => $day, 'updated_at' => $day];
    }

    /** @param  list<array<string, mixed>>  $rows */
    private function insert(string $table, array $rows): void
    {
        foreach (array_chunk($rows, self::CHUNK) as $chunk) {
            $this->database->table($table)->insert($chunk);
        }
    }
}
