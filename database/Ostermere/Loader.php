<?php

declare(strict_types=1);

namespace Database\Ostermere;

use App\Figures\CountedWriter;
use App\Models\Role;
use App\Models\Theme;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\GeoShapes;
use App\Support\Month;
use App\Support\PeriodDate;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Take;

/**
 * Writes the demonstration into an empty database, all or nothing.
 */
final readonly class Loader
{
    private const CHUNK = 2_000;

    /** When records were brought in. */
    private const BROUGHT = '2026-09-01T06:10:00Z';

    public function __construct(private Connection $database, private PeriodDate $dates) {}

    public function load(): void
    {
        $this->database->transaction(function (): void {
            $units = $this->units();
            $owners = $this->people($units);
            foreach (array_keys(Practice::OBJECTIVES) as $position => $code) {
                $this->database->table('objectives')->insert(['code' => $code, 'name' => Practice::OBJECTIVES[$code], 'position' => $position + 1]);
            }
            foreach (Catalogue::THEMES as $position => $name) {
                Theme::query()->create(['name' => $name, 'position' => $position + 1]);
            }
            $themes = Theme::query()->pluck('id', 'name')->all();
            $readings = [];
            $targets = [];
            $measurement = [];
            foreach (Catalogue::plans() as $position => $plan) {
                $kpi = $this->kpi($plan, $units, $themes);
                foreach (World::unitsOf($plan) as $unit) {
                    $owner = $owners[$plan->answers()];
                    $id = $this->database->table('kpi_unit')->insertGetId([
                        'kpi_id' => $kpi, 'unit_id' => $units[$unit], 'owner_id' => $owner, 'weight' => $plan->weight, 'position' => $position + 1,
                    ]);
                    $measurement[$plan->code][$unit] = ['id' => $id, 'owner' => $owner];
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
            $this->insert('notes', $this->notes($measurement));
            $this->special($units, $owners, $themes);
            $this->gather($units, $owners);
            $this->practice();
            $this->followUps($measurement);
            $this->records($units, $owners, $themes);
            $this->close($units);
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
        foreach (GeoShapes::read((string) file_get_contents(__DIR__.'/zones.geojson')) as ['names' => $names, 'shape' => $shape, 'points' => $points]) {
            $this->database->table('unit_shapes')->insert(['unit_id' => $ids[$names[0]], 'shape' => json_encode($shape, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION), 'points' => $points]);
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
            if (isset($people[$account['email']])) {
                continue;
            }
            $user = User::query()->forceCreate(['name' => $account['name'], 'email' => $account['email'], 'password' => Accounts::PASSWORD, 'joined_at' => now()]);
            $user->grants()->createMany(array_map(fn (Role $role): array => ['role' => $role, 'unit_id' => $units[$account['unit']]], $account['role'] === Role::Analyst ? [Role::Analyst, Role::Administrator] : [$account['role']]));
            $people[$account['email']] = $user->id;
        }

        return array_map(fn (array $account): int => $people[$account['email']], Accounts::owners());
    }

    /**
     * @param  array<string, int>  $units
     * @param  array<string, int>  $owners
     * @param  array<array-key, int>  $themes
     */
    private function special(array $units, array $owners, array $themes): void
    {
        foreach (Special::kpis() as $position => ['unit' => $unit, 'theme' => $theme, 'columns' => $columns, 'rule' => $rule]) {
            $kpi = $this->database->table('kpis')->insertGetId([
                ...$columns, 'department_id' => $units[$unit], 'theme_id' => $themes[$theme],
            ] + $this->stamps(Story::FIRST_MONTH));
            if ($rule !== null) {
                $this->database->table('rule_sets')->insert(['kpi_id' => $kpi, 'valid_from' => Story::FIRST_MONTH.'-01', ...$rule]);
            }
            $id = $this->database->table('kpi_unit')->insertGetId(['kpi_id' => $kpi, 'unit_id' => $units[$unit], 'owner_id' => $owners[$unit], 'position' => 200 + $position]);
            $frequency = Frequency::from($columns['frequency']);
            $date = fn (string $period): string => $this->dates->date(Period::parse($period, $frequency));
            $isJudged = $columns['kind'] === 'judged';
            $readings = $targets = $notes = [];
            foreach (Special::actuals($columns['code']) as $period => $value) {
                $readings[] = ['kpi_unit_id' => $id, 'period' => $date($period), 'actual' => $isJudged ? null : $value, 'colour' => $isJudged ? $value : null, 'entered_by' => $owners[$unit]]
                    + $this->stamps(substr($date($period), 0, 7));
            }
            foreach (Special::targets($columns['code']) as $period => [$figure, $upper]) {
                $targets[] = ['kpi_unit_id' => $id, 'period' => $date($period), 'target' => $upper === null ? $figure : null, 'low' => $upper === null ? null : $figure, 'high' => $upper];
            }
            foreach (Special::notes($columns['code']) as $period => $text) {
                $notes[] = ['kpi_unit_id' => $id, 'period' => $date($period), 'text' => $text, 'author_id' => $owners[$unit]] + $this->stamps(substr($date($period), 0, 7));
            }
            $this->insert('readings', $readings);
            $this->insert('targets', $targets);
            $this->insert('notes', $notes);
        }
    }

    /**
     * What is measured in each zone or meter, and gathered to its department.
     *
     * @param  array<string, int>  $units
     * @param  array<string, int>  $owners
     */
    private function gather(array $units, array $owners): void
    {
        foreach (Practice::GATHERED as [$code, $unit, $how]) {
            $kpi = $this->database->table('kpis')->where('code', $code)->value('id');
            $this->database->table('kpis')->where('id', $kpi)->update(['gathering' => $how]);
            $this->database->table('kpi_unit')->insert(['kpi_id' => $kpi, 'unit_id' => $units[$unit], 'owner_id' => $owners[$unit], 'position' => 199, 'is_gathered' => true]);
        }
    }

    /**
     * Record sets, with a load of each, and what is counted from them.
     *
     * @param  array<string, int>  $units
     * @param  array<string, int>  $owners
     * @param  array<array-key, int>  $themes
     */
    private function records(array $units, array $owners, array $themes): void
    {
        $analyst = User::query()->where('email', 'analyst@ostermere.example')->value('id');
        $sets = [];
        [$from, $to] = Records::covers();
        foreach (Records::sets() as $code => $set) {
            $fields = $types = $columns = $mapping = [];
            foreach ($set['fields'] as $field) {
                if (isset($field['type'])) {
                    $field['column'] = 'c'.(count($columns) + 1);
                    $columns[$field['name']] = $field['column'];
                    $types[$field['column']] = $field['type'];
                    $mapping[$field['name']] = ['field' => $field['name'], 'form' => ''];
                }
                $fields[] = array_filter($field, fn (mixed $member): bool => $member !== '' && $member !== false);
            }
            $stamps = ['created_at' => self::BROUGHT, 'updated_at' => self::BROUGHT];
            $id = $this->database->table('record_sets')->insertGetId([
                'code' => $code, 'name' => $set['name'], 'noun' => $set['noun'], 'unit_id' => $units[$set['unit']], 'key_field' => $set['key'], 'fields' => json_encode($fields, JSON_THROW_ON_ERROR),
                'unit_field' => $set['unitField'], 'covers_from' => $from, 'covers_to' => $to, 'covers_by_loads' => true, 'mapping' => json_encode($mapping, JSON_THROW_ON_ERROR), ...$stamps,
            ]);
            $this->database->select('SELECT kybernet_make_records(?, ?, ?)', [$id, json_encode($types, JSON_THROW_ON_ERROR), $columns[$set['key']]]);
            $load = $this->database->table('record_loads')->insertGetId([
                'record_set_id' => $id, 'user_id' => $analyst, 'way' => 'file', 'file' => strtolower($code).'-to-2026-08.csv', 'mode' => 'key', 'mapping' => json_encode($mapping, JSON_THROW_ON_ERROR), 'state' => 'applied',
                'covers_to' => $to, 'applied_at' => self::BROUGHT, ...$stamps,
            ]);
            $lines = [];
            foreach ($set['rows']() as $row) {
                $lines[] = implode("\t", [(string) $load, ...array_map(fn (string $value): string => $value === '' ? '\N' : $value, $row)]);
            }
            DB::connection()->getPdo()->pgsqlCopyFromArray("records.r{$id}", $lines, "\t", '\\\\N', implode(',', ['load', ...array_values($columns)]));
            $this->database->table('record_sets')->where('id', $id)->update(['records' => count($lines)]);
            $this->database->table('record_loads')->where('id', $load)->update(['brought' => count($lines), 'added' => count($lines), 'progress' => count($lines)]);
            if (isset($owners[$set['unit']])) {
                $this->database->table('record_set_owners')->insert(['record_set_id' => $id, 'user_id' => $owners[$set['unit']]]);
            }
            $sets[$code] = $id;
        }
        $this->countedKpis($sets, $units, $owners, $themes);
    }

    /**
     * @param  array<string, int>  $sets
     * @param  array<string, int>  $units
     * @param  array<string, int>  $owners
     * @param  array<array-key, int>  $themes
     */
    private function countedKpis(array $sets, array $units, array $owners, array $themes): void
    {
        $objectives = $this->database->table('objectives')->pluck('id', 'code');
        $ids = [];
        foreach (Records::kpis() as $position => ['units' => $places, 'theme' => $theme, 'columns' => $columns, 'counted' => $counted, 'splits' => $splits, 'rule' => $rule, 'target' => $target]) {
            $kpi = $this->database->table('kpis')->insertGetId([
                ...$columns, 'department_id' => $units[$places[0]], 'theme_id' => $themes[$theme], 'accumulation' => Take::from($counted['take'])->accumulation()->value,
                'source' => Records::sets()[$counted['records']]['name'], 'objective_id' => $objectives[$counted['records'] === 'JOBS' && $theme === 'Leakage and mains' ? 'SERVE' : Practice::THEMES[$theme][1]], 'due_day' => 8, 'data_available' => true, 'definition_agreed' => true,
                'counted' => json_encode($counted, JSON_THROW_ON_ERROR), 'splits' => $splits === [] ? null : json_encode($splits, JSON_THROW_ON_ERROR), 'record_set_id' => $sets[$counted['records']],
            ] + $this->stamps(Story::FIRST_MONTH));
            if ($rule !== null) {
                $this->database->table('rule_sets')->insert(['kpi_id' => $kpi, 'valid_from' => Story::FIRST_MONTH.'-01', ...$rule]);
            }
            foreach ($places as $place) {
                $id = $this->database->table('kpi_unit')->insertGetId(['kpi_id' => $kpi, 'unit_id' => $units[$place], 'owner_id' => $owners[$place] ?? $owners[str_starts_with($place, 'W-') ? 'TRT' : (str_starts_with($place, 'Z-') ? 'NET' : 'PPL')], 'position' => 300 + $position]);
                $this->insert('targets', array_map(fn (Period $month): array => ['kpi_unit_id' => $id, 'period' => Month::date($month), 'target' => $target], $target === null ? [] : Period::parse(Story::FIRST_MONTH)->to(Period::parse('2027-03'))));
            }
            $ids[] = $kpi;
        }
        // The financial year is known only since this began.
        app()->forgetScopedInstances();
        app(CountedWriter::class)($ids);
    }

    private function practice(): void
    {
        $objectives = $this->database->table('objectives')->pluck('id', 'code');
        $kpis = $this->database->table('kpis')->pluck('id', 'code');
        foreach (Practice::THEMES as $theme => [$source, $objective]) {
            $this->database->table('kpis')->whereIn('theme_id', Theme::query()->where('name', $theme)->select('id'))
                ->update(['source' => $source, 'objective_id' => $objectives[$objective], 'due_day' => 8, 'data_available' => true, 'definition_agreed' => true]);
        }
        $this->database->table('kpis')->whereIn('code', Practice::NOT_AVAILABLE)->update(['data_available' => false]);
        $this->database->table('kpis')->whereIn('code', Practice::NOT_AGREED)->update(['definition_agreed' => false]);
        $this->database->table('kpis')->whereIn('code', Practice::NOTE_REQUIRED)->update(['note_required' => true]);
        foreach (Practice::TEXTS as $code => [$green, $amber, $red]) {
            $this->database->table('kpis')->where('code', $code)->update(['text_green' => $green, 'text_amber' => $amber, 'text_red' => $red]);
        }
        foreach (Practice::DRIVERS as $code => $drivers) {
            foreach ($drivers as $position => $driver) {
                $this->database->table('kpi_drivers')->insert(['kpi_id' => $kpis[$code], 'driver_id' => $kpis[$driver], 'position' => $position]);
            }
        }
        foreach (Practice::OUTLOOKS as $place => [$outlook, $doing]) {
            [$code, $unit, $month] = explode('/', $place);
            $this->database->update(
                'UPDATE notes SET outlook = ?, doing = ? FROM kpi_unit JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
                 WHERE kpi_unit_id = kpi_unit.id AND kpis.code = ? AND units.code = ? AND period = ?',
                [$outlook, $doing, $code, $unit, "{$month}-01"],
            );
        }
    }

    /** @param  array<string, array<string, array{id: int, owner: int}>>  $measurement */
    private function followUps(array $measurement): void
    {
        $actions = [];
        foreach (Practice::ACTIONS as [$kpi, $unit, $month, $what, $who, $due, $state, $outcome]) {
            $actions[] = [
                'kpi_unit_id' => $measurement[$kpi][$unit]['id'], 'period' => "{$month}-01", 'what' => $what, 'who' => $who, 'due' => $due, 'state' => $state,
                'outcome' => $outcome, 'ended' => $state === 'open' ? null : $due, 'author_id' => $measurement[$kpi][$unit]['owner'],
            ] + $this->stamps($month);
        }
        $this->insert('actions', $actions);
        foreach (Practice::CALLS as [$kpi, $unit, $month, $status, $reason, $by]) {
            $place = ['kpi_unit_id' => $measurement[$kpi][$unit]['id'], 'period' => "{$month}-01"];
            $this->database->table('calls')->insert([
                ...$place, 'span' => 'month', 'status' => $status, 'reason' => $reason,
                'over' => $this->database->table('readings')->where($place)->value('actual'),
                'author_id' => User::query()->where('email', $by)->value('id'),
            ] + $this->stamps($month));
        }
    }

    /** @param  array<string, int>  $units */
    private function close(array $units): void
    {
        // It was measured all along.
        $this->database->table('kpi_unit')->update(['created_at' => null]);
        foreach (Practice::PARTS as $code => $shares) {
            $this->parts($code, $shares);
        }
        $this->database->table('readings')->where('period', '<=', Practice::SUBMITTED_UNTIL.'-01')->update(['state' => 'submitted']);
        $analyst = User::query()->where('email', 'analyst@ostermere.example')->value('id');
        $closed = [];
        foreach (Period::parse(Story::FIRST_MONTH)->to(Period::parse(Practice::CLOSED_UNTIL)) as $month) {
            foreach ($units as $unit) {
                $closed[] = ['unit_id' => $unit, 'period' => Month::date($month), 'closed_by' => $analyst, 'closed_at' => $month->plus(1)->key().'-12T09:30:00Z'];
            }
        }
        $this->insert('period_states', $closed);
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
     * @param  array<string, array<string, array{id: int, owner: int}>>  $measurement
     * @return list<array<string, mixed>>
     */
    private function notes(array $measurement): array
    {
        $notes = [];
        foreach (Story::events() as [$kpi, $unit, $month, , $text]) {
            if ($text !== '') {
                $place = $measurement[$kpi][$unit];
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

    /**
     * Whole numbers that add up to each reading, around the shares; wipes grow from month to month.
     *
     * @param  array<string, int>  $shares  in %, by part; the last takes what is left
     */
    private function parts(string $code, array $shares): void
    {
        $kpi = $this->database->table('kpis')->where('code', $code)->value('id');
        $this->database->table('kpis')->where('id', $kpi)->update(['parts' => json_encode(array_keys($shares), JSON_THROW_ON_ERROR)]);
        $rows = [];
        foreach ($this->database->table('readings')->join('kpi_unit', 'kpi_unit.id', '=', 'readings.kpi_unit_id')->where('kpi_unit.kpi_id', $kpi)->orderBy('period')->get(['kpi_unit_id', 'period', 'actual']) as $at => $reading) {
            $left = $whole = (int) round((float) $reading->actual);
            foreach ($shares as $part => $share) {
                $drift = match ($part) {
                    'wipes' => $at / 5,
                    'fat and grease' => -$at / 5,
                    default => 0,
                };
                $figure = $part === array_key_last($shares) ? $left : min($left, intdiv($whole * (int) round($share + $drift + ($at * 7 + strlen($part) * 3) % 5 - 2), 100));
                $left -= $figure;
                $rows[] = ['kpi_unit_id' => $reading->kpi_unit_id, 'period' => $reading->period, 'part' => $part, 'actual' => (string) $figure];
            }
        }
        $this->database->table('reading_parts')->insert($rows);
    }
}
