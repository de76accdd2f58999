<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Figures\CountedRows;
use App\Figures\CountedWriter;
use App\Figures\KpiColumns;
use App\Figures\ReadingStage;
use App\Models\Role;
use App\Records\RecordKeeper;
use App\Records\RecordSets;
use App\Support\Installation;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\Trail;
use Brick\Math\BigDecimal;
use Database\Ostermere\Accounts;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\MeasurementEntry;
use Kybernet\Core\Workbook\PersonEntry;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\RecordSetEntry;
use Kybernet\Core\Workbook\UnitEntry;
use Kybernet\Core\Workbook\Workbook;

/**
 * Puts a workbook in the place of everything that the database holds, or changes nothing at all. What has the same code
 * stays the same thing: its history in the trail, and what a workbook does not tell (versions, times, who entered a
 * figure, what people have seen), stay with it. People of the workbook who have no account get one that nobody can sign
 * in with until a password is set; whoever is not among its people cannot sign in any longer.
 */
final class ImportWorkbook
{
    private const CHUNK = 2000;

    /** @var list<string> in an order that no foreign key minds */
    private const TABLES = [
        'period_states', 'seen_marks', 'actions', 'calls', 'notes', 'readings', 'targets', 'year_targets', 'rule_sets', 'kpi_drivers', 'kpi_unit', 'kpis', 'themes', 'objectives', 'units',
    ];

    /** @var array<string, list<array<string, mixed>>> rows that wait to be written, by table */
    private array $waiting = [];

    /** @var array<string, array<string, int>> identities by table and code, name or e-mail address */
    private array $ids = [];

    /** @var array<string, array<string, int>> the same, as they were before */
    private array $former = [];

    /** @var array<string, int> identities that were given last, by table */
    private array $last = [];

    private PeriodDate $dates;

    public function __construct(
        private readonly Connection $database,
        private readonly Installation $installation,
        private readonly Hasher $hasher,
        private readonly Trail $trail,
        private readonly RecordKeeper $keeper,
        private readonly RecordSets $sets,
    ) {}

    public function hasOrganisation(): bool
    {
        return $this->database->table('units')->exists();
    }

    /** @throws BadWorkbook when this installation cannot hold it */
    public function __invoke(Workbook $workbook): void
    {
        $problems = $this->problems($workbook);
        if ($problems !== []) {
            throw new BadWorkbook($problems);
        }
        $this->trail->silently(function () use ($workbook): void {
            $this->waiting = $this->ids = $this->last = [];
            $this->dates = new PeriodDate($workbook->year);
            // Nobody writes meanwhile; who reads sees what was there.
            $this->database->statement('LOCK TABLE kpi_unit, units, kpis, users, readings, notes, targets, calls, actions, period_states IN EXCLUSIVE MODE');
            $this->remember();
            // What people do is for units that go and come back within this transaction.
            $this->database->statement('SET CONSTRAINTS grants_unit_id_foreign, record_sets_unit_id_foreign DEFERRED');
            foreach (self::TABLES as $table) {
                $this->database->table($table)->delete();
            }
            $this->units($workbook);
            $this->people($workbook);
            $this->names($workbook);
            $this->recordSets($workbook);
            $this->kpis($workbook);
            $this->flush();
            $this->count($workbook);
            $this->carryOver();
            $this->closings($workbook);
            $this->database->update('UPDATE period_states SET closed_by = former.closed_by, closed_at = former.closed_at FROM former_period_states former WHERE period_states.unit_id = former.unit_id AND period_states.period = former.period');
            $this->installation->become(false, $workbook->year->startMonth, $workbook->timeZone);
            $this->database->statement('SET CONSTRAINTS ALL IMMEDIATE');
            $this->database->table('audit_entries')->insert(['subject' => 'workbook', 'after' => json_encode(['name' => count($workbook->kpis).' KPIs in '.count($workbook->units).' units'], JSON_THROW_ON_ERROR)]);
        });
    }

    /** @return list<Problem> */
    private function problems(Workbook $workbook): array
    {
        $problems = [];
        $roots = array_filter($workbook->units, fn (UnitEntry $unit): bool => $unit->parent === null);
        if (count($roots) !== 1) {
            $problems[] = new Problem('/units', 'roots', 'One unit, the organisation, must stand above all others; '.count($roots).' have none above them.');
        }
        $known = array_fill_keys([...$this->database->table('users')->pluck('email')->all(), ...array_column($workbook->people, 'email')], true);
        foreach ($workbook->kpis as $index => $kpi) {
            foreach ($kpi->units as $place => $entry) {
                if ($entry->owner !== null && ! isset($known[$entry->owner])) {
                    $problems[] = new Problem("/kpis/{$index}/units/{$place}/owner", 'unknown-person', "'{$entry->owner}' is neither among the people nor an account here.");
                }
                foreach ($entry->notes as $period => $note) {
                    if ($note->by !== null && ! isset($known[$note->by])) {
                        $problems[] = new Problem('/readings', 'unknown-person', "The note of {$kpi->code} in {$entry->placed->unit} for {$period} is by '{$note->by}', who is neither among the people nor an account here.");
                    }
                }
                foreach ($entry->actions as $action) {
                    if ($action->by !== null && ! isset($known[$action->by])) {
                        $problems[] = new Problem('/actions', 'unknown-person', "The action '{$action->what}' is by '{$action->by}', who is neither among the people nor an account here.");
                    }
                }
                foreach ($entry->placed->calls as $call) {
                    if ($call->by !== null && ! isset($known[$call->by])) {
                        $problems[] = new Problem('/calls', 'unknown-person', "The call of {$kpi->code} in {$entry->placed->unit} for {$call->period->key()} is by '{$call->by}', who is neither among the people nor an account here.");
                    }
                }
            }
        }

        return $problems;
    }

    private function units(Workbook $workbook): void
    {
        $byCode = array_column($workbook->units, null, 'code');
        $positions = array_flip(array_column($workbook->units, 'code'));
        $place = function (UnitEntry $unit) use (&$place, $byCode, $positions): void {
            if (isset($this->ids['units'][$unit->code])) {
                return;
            }
            $above = $unit->parent === null ? null : $byCode[$unit->parent];
            if ($above !== null) {
                $place($above);
            }
            $this->ids['units'][$unit->code] = $this->identity('units', $unit->code);
            $this->database->table('units')->insert([
                'id' => $this->ids['units'][$unit->code],
                'code' => $unit->code,
                'name' => $unit->name,
                'kind' => $unit->kind ?? match (true) {
                    $above === null => 'organisation',
                    $above->parent === null => 'department',
                    default => 'unit',
                },
                'parent_id' => $above === null ? null : $this->ids['units'][$above->code],
                'weight' => (string) $unit->weight,
                'position' => $positions[$unit->code],
                'roll_up' => $unit->rollUp->rule->value,
                'roll_up_green' => (string) $unit->rollUp->green,
                'roll_up_other' => (string) $unit->rollUp->amberOrRed,
            ]);
        };
        foreach ($workbook->units as $unit) {
            $place($unit);
        }
    }

    private function people(Workbook $workbook): void
    {
        /** @var array<string, int> $there */
        $there = $this->database->table('users')->pluck('id', 'email')->all();
        $locked = null;
        foreach ($workbook->people as $person) {
            $columns = ['name' => $person->name, 'locale' => $person->locale ?? 'en-GB'];
            if (isset($there[$person->email])) {
                $this->database->table('users')->where('email', $person->email)->update($columns);
            } else {
                $locked ??= $this->hasher->make(Str::random(64));
                $this->database->table('users')->insert([...$columns, 'email' => $person->email, 'joined_at' => now(), 'password' => $locked, 'created_at' => now(), 'updated_at' => now()]);
            }
            $this->database->table('users')->where('email', $person->email)->when(! $person->isBlocked, fn (Builder $query): Builder => $query->whereNotNull('blocked_at'), fn (Builder $query): Builder => $query->whereNull('blocked_at'))
                ->update(['blocked_at' => $person->isBlocked ? now() : null]);
        }
        if ($workbook->people !== []) {
            $this->database->table('users')->whereNotIn('email', array_column($workbook->people, 'email'))->whereNull('blocked_at')->update(['blocked_at' => now()]);
        }
        if ($this->installation->isDemonstration()) {
            // Everybody knows the passwords of the demonstration's accounts.
            $this->database->table('users')->whereIn('email', array_column(Accounts::all(), 'email'))->update(['password' => $locked ?? $this->hasher->make(Str::random(64)), 'remember_token' => null]);
        }
        $this->ids['users'] = $this->database->table('users')->pluck('id', 'email')->all();
        $this->grants($workbook, $there);
    }

    /**
     * What people come to do. Who is not in the workbook keeps it, for the unit of the same code; where the workbook names
     * no administrator, those who administer go on, and new analysts do too.
     *
     * @param  array<string, int>  $there  identities of those who were there before, by e-mail address
     */
    private function grants(Workbook $workbook, array $there): void
    {
        $root = $this->ids['units'][array_values(array_filter($workbook->units, fn (UnitEntry $unit): bool => $unit->parent === null))[0]->code];
        $unit = fn (?string $code): int => $code === null ? $root : $this->ids['units'][$code] ?? $root;
        $administrator = Role::Administrator->value;
        $named = array_filter($workbook->people, fn (PersonEntry $person): bool => in_array($administrator, array_column($person->roles(), 'role'), true)) !== [];
        $rows = [];
        foreach ($workbook->people as $person) {
            foreach ([...$person->roles(), ...(! $named && ! isset($there[$person->email]) && $person->role === Role::Analyst->value ? [['role' => $administrator, 'unit' => null]] : [])] as $held) {
                $rows[] = ['user_id' => $this->ids['users'][$person->email], 'role' => $held['role'], 'unit_id' => $held['role'] === $administrator ? $root : $unit($held['unit'])];
            }
        }
        $listed = array_flip(array_map(fn (PersonEntry $person): int => $this->ids['users'][$person->email], $workbook->people));
        /** @var list<object{user_id: int, role: string, code: string|null}> $former */
        $former = $this->database->select('SELECT user_id, role, code FROM former_grants LEFT JOIN former_units ON former_units.id = unit_id ORDER BY former_grants.id');
        foreach ($former as $held) {
            if (! isset($listed[$held->user_id]) || (! $named && $held->role === $administrator)) {
                $rows[] = ['user_id' => $held->user_id, 'role' => $held->role, 'unit_id' => $held->role === $administrator ? $root : $unit($held->code)];
            }
        }
        $this->database->table('grants')->delete();
        $this->database->table('grants')->insertOrIgnore($rows);
    }

    /** What is to be found again: identities by code, and what a workbook does not tell. */
    private function remember(): void
    {
        $this->former = [
            'units' => $this->database->table('units')->pluck('id', 'code')->all(),
            'kpis' => $this->database->table('kpis')->pluck('id', 'code')->all(),
            'objectives' => $this->database->table('objectives')->pluck('id', 'code')->all(),
            'themes' => $this->database->table('themes')->pluck('id', 'name')->all(),
            'kpi_unit' => $this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')->join('units', 'units.id', '=', 'kpi_unit.unit_id')
                ->selectRaw("kpi_unit.id, kpis.code || ' ' || units.code AS place")->pluck('id', 'place')->all(),
        ];
        foreach (['kpis', 'readings', 'notes', 'calls', 'actions', 'period_states', 'seen_marks', 'objectives', 'themes', 'units', 'rule_sets', 'kpi_drivers', 'grants', 'unit_history', 'unit_codes'] as $table) {
            $this->database->statement("CREATE TEMPORARY TABLE former_{$table} ON COMMIT DROP AS SELECT * FROM {$table}");
        }
    }

    /** The one it had, unless something that stands before it in the workbook has a later one: the order goes by identities. */
    private function identity(string $table, string $code): int
    {
        $former = $this->former[$table][$code] ?? 0;
        $this->last[$table] = $former > ($this->last[$table] ?? 0) ? $former : (int) $this->database->scalar("SELECT nextval(pg_get_serial_sequence('{$table}', 'id'))");

        return $this->last[$table];
    }

    /** Gives back what a workbook does not tell, wherever the thing that it is about is the same. */
    private function carryOver(): void
    {
        $same = fn (string $table, string $columns, string $key, string $alike): int => $this->database->update(
            "UPDATE {$table} SET {$columns} FROM former_{$table} former WHERE {$key} AND {$alike}",
        );
        $place = fn (string $table): string => "{$table}.kpi_unit_id = former.kpi_unit_id AND {$table}.period = former.period";
        $times = 'created_at = former.created_at, updated_at = former.updated_at';
        $same('kpis', "version = former.version, {$times}", 'kpis.id = former.id', 'true');
        $same('readings', "id = former.id, version = former.version, entered_by = former.entered_by, {$times}", $place('readings'), '(readings.actual, readings.colour) IS NOT DISTINCT FROM (former.actual, former.colour)');
        $same('notes', "id = former.id, version = former.version, {$times}", $place('notes'), '(notes.text, notes.outlook, notes.doing) IS NOT DISTINCT FROM (former.text, former.outlook, former.doing)');
        $same('calls', "id = former.id, {$times}", $place('calls').' AND calls.span = former.span', '(calls.status, calls.reason) = (former.status, former.reason)');
        $same('actions', "id = former.id, version = former.version, {$times}", $place('actions'), '(actions.what, actions.who, actions.due) = (former.what, former.who, former.due)');
        $same('rule_sets', 'id = former.id', 'rule_sets.kpi_id = former.kpi_id AND rule_sets.kpi_unit_id IS NOT DISTINCT FROM former.kpi_unit_id', 'rule_sets.valid_from = former.valid_from');
        $same('kpi_drivers', 'position = former.position', 'kpi_drivers.kpi_id = former.kpi_id', 'kpi_drivers.driver_id = former.driver_id');
        foreach (['objectives', 'themes', 'units'] as $table) {
            $same($table, 'position = former.position', "{$table}.id = former.id", "(SELECT count(*) FROM {$table}) = (SELECT count(*) FROM former_{$table})");
        }
        // Readings that were taken back keep their rows, so that their versions go on counting.
        $this->database->statement('INSERT INTO readings SELECT former.* FROM former_readings former JOIN kpi_unit ON kpi_unit.id = former.kpi_unit_id WHERE former.actual IS NULL AND former.colour IS NULL
            AND NOT EXISTS (SELECT FROM readings WHERE readings.kpi_unit_id = former.kpi_unit_id AND readings.period = former.period)');
        // How units stood in closed months, and the codes that they had, for those that are the same.
        $this->database->statement('INSERT INTO unit_history SELECT former.* FROM former_unit_history former JOIN units ON units.id = former.unit_id WHERE former.parent_id IS NULL OR EXISTS (SELECT FROM units above WHERE above.id = former.parent_id)');
        $this->database->statement('INSERT INTO unit_codes SELECT former.* FROM former_unit_codes former JOIN units ON units.id = former.unit_id WHERE NOT EXISTS (SELECT FROM units taken WHERE lower(taken.code) = lower(former.code))');
        $this->database->statement('INSERT INTO seen_marks SELECT former.* FROM former_seen_marks former JOIN kpi_unit ON kpi_unit.id = former.kpi_unit_id');
    }

    private function names(Workbook $workbook): void
    {
        $position = 0;
        foreach ($workbook->objectives as $code => $name) {
            $this->ids['objectives'][$code] = $this->identity('objectives', $code);
            $this->database->table('objectives')->insert(['id' => $this->ids['objectives'][$code], 'code' => $code, 'name' => $name, 'position' => $position++]);
        }
        $used = array_values(array_filter(array_map(fn (KpiEntry $kpi): ?string => $kpi->theme, $workbook->kpis), is_string(...)));
        foreach (array_values(array_unique([...$workbook->themes, ...$used])) as $index => $theme) {
            $this->ids['themes'][$theme] = $this->identity('themes', $theme);
            $this->database->table('themes')->insert(['id' => $this->ids['themes'][$theme], 'name' => $theme, 'position' => $index]);
        }
    }

    /** A set of the same code stays the same set; one that the workbook does not have goes with its records. */
    private function recordSets(Workbook $workbook): void
    {
        $root = $this->ids['units'][array_values(array_filter($workbook->units, fn (UnitEntry $unit): bool => $unit->parent === null))[0]->code];
        // By the code of its unit, which may have another identity now.
        $this->database->statement('UPDATE record_sets SET unit_id = coalesce((SELECT units.id FROM units JOIN former_units ON former_units.code = units.code WHERE former_units.id = record_sets.unit_id), ?)', [$root]);
        $this->database->table('record_sets')->whereNotIn('code', array_map(fn (RecordSetEntry $entry): string => $entry->set->code, $workbook->recordSets))->delete();
        $this->sets->forget();
        foreach ($workbook->recordSets as $entry) {
            $this->ids['record_sets'][$entry->set->code] = $this->keeper->take($entry, $root);
        }
        $this->database->select('SELECT kybernet_sweep_records()');
    }

    /** What is counted from records: before anything is closed. */
    private function count(Workbook $workbook): void
    {
        $counted = array_filter($workbook->kpis, fn (KpiEntry $kpi): bool => $kpi->definition->kind === Kind::Records);
        if ($counted !== []) {
            // The financial year and the time zone are the workbook's from here on.
            $this->installation->become(false, $workbook->year->startMonth, $workbook->timeZone);
            app()->forgetScopedInstances();
            app(CountedWriter::class)(array_values(array_map(fn (KpiEntry $kpi): int => $this->ids['kpis'][$kpi->code], $counted)));
            $this->dropEchoes(array_values($counted));
        }
    }

    /**
     * Readings that say what is counted here anyway are none by hand: the workbook has them for whoever cannot count.
     *
     * @param  list<KpiEntry>  $kpis
     */
    private function dropEchoes(array $kpis): void
    {
        foreach ($kpis as $kpi) {
            $take = $kpi->definition->counted->take ?? throw new \LogicException('What is counted says how.');
            foreach ($this->database->select("SELECT readings.id, trim_scale(actual)::text AS actual, records, empty, met, trim_scale(taken)::text AS taken, trim_scale(divisor)::text AS divisor
                FROM readings JOIN kpi_unit ON kpi_unit.id = readings.kpi_unit_id JOIN counted_figures USING (kpi_unit_id, period) WHERE kpi_id = ? AND span = 'period' AND actual IS NOT NULL", [$this->ids['kpis'][$kpi->code]]) as $row) {
                if (CountedRows::count($row)->figure($take)?->rounded(8)->isEqualTo(BigDecimal::of($row->actual)) === true) {
                    $this->database->table('readings')->where('id', $row->id)->delete();
                }
            }
        }
    }

    private function kpis(Workbook $workbook): void
    {
        $units = array_column($workbook->units, null, 'code');
        $positions = [];
        // A weighting KPI may stand after the one that it weights.
        $this->database->statement('SET CONSTRAINTS kpis_weighted_by_id_foreign DEFERRED');
        foreach ($workbook->kpis as $kpi) {
            $this->ids['kpis'][$kpi->code] = $this->identity('kpis', $kpi->code);
        }
        foreach ($workbook->kpis as $kpi) {
            $this->database->table('kpis')->insert($this->kpi($kpi, $units));
        }
        foreach ($workbook->kpis as $kpi) {
            $this->rules($kpi->definition->rules, $kpi, null);
            foreach ($kpi->drivers as $index => $driver) {
                $this->write('kpi_drivers', ['kpi_id' => $this->ids['kpis'][$kpi->code], 'driver_id' => $this->ids['kpis'][$driver], 'position' => $index]);
            }
            // The order of its units goes by identities too.
            $this->last['kpi_unit'] = 0;
            foreach ($kpi->units as $entry) {
                $unit = $entry->placed->unit;
                $positions[$unit] = ($positions[$unit] ?? -1) + 1;
                $this->place($kpi, $entry, $positions[$unit]);
            }
        }
    }

    /**
     * @param  array<string, UnitEntry>  $units
     * @return array<string, mixed>
     */
    private function kpi(KpiEntry $kpi, array $units): array
    {
        return [
            ...KpiColumns::definition($kpi),
            'id' => $this->ids['kpis'][$kpi->code],
            'department_id' => $this->ids['units'][$kpi->department ?? self::department($kpi, $units)],
            'theme_id' => $kpi->theme === null ? null : $this->ids['themes'][$kpi->theme],
            'objective_id' => $kpi->objective === null ? null : $this->ids['objectives'][$kpi->objective],
            'weighted_by_id' => $kpi->definition->weightedBy === null ? null : $this->ids['kpis'][$kpi->definition->weightedBy],
            'record_set_id' => $kpi->definition->counted === null ? null : $this->ids['record_sets'][$kpi->definition->counted->records],
            'created_at' => now(),
            'updated_at' => now(),
        ];
    }

    /**
     * The unit below the organisation under which the KPI is measured first, or the organisation itself.
     *
     * @param  array<string, UnitEntry>  $units
     */
    private static function department(KpiEntry $kpi, array $units): string
    {
        $unit = $units[$kpi->units[0]->placed->unit ?? ''] ?? array_values(array_filter($units, fn (UnitEntry $each): bool => $each->parent === null))[0];
        while ($unit->parent !== null && $units[$unit->parent]->parent !== null) {
            $unit = $units[$unit->parent];
        }

        return $unit->code;
    }

    private function place(KpiEntry $kpi, MeasurementEntry $entry, int $position): void
    {
        $placed = $entry->placed;
        $frequency = $placed->definition->frequency;
        $baseline = $placed->baseline === null || $placed->baseline === [] ? null : $placed->baseline;
        $id = $this->identity('kpi_unit', "{$kpi->code} {$placed->unit}");
        $this->database->table('kpi_unit')->insert([
            'id' => $id,
            'kpi_id' => $this->ids['kpis'][$kpi->code],
            'unit_id' => $this->ids['units'][$placed->unit],
            'owner_id' => $entry->owner === null ? null : $this->ids['users'][$entry->owner],
            'weight' => (string) $entry->weight,
            'position' => $entry->position ?? $position,
            'measured_from' => $placed->tenure->from === null ? null : Month::date($placed->tenure->from),
            'measured_to' => $placed->tenure->to === null ? null : Month::date($placed->tenure->to),
            'is_gathered' => $placed->isGathered,
            // A workbook brings its history with it: what it says is closed is closed.
            'created_at' => null,
            'baseline_from' => $baseline === null ? null : $this->dates->date($baseline[0]),
            'baseline_to' => $baseline === null ? null : $this->dates->date($baseline[count($baseline) - 1]),
        ]);
        $this->rules($placed->ownRules, $kpi, $id);
        $this->figures($entry, $id);
        $this->actions($entry, $id);
        foreach ($entry->notes as $period => $note) {
            $this->write('notes', [
                'kpi_unit_id' => $id,
                'period' => $this->dates->date(Period::parse($period, $frequency)),
                'text' => $note->text,
                'outlook' => $note->outlook,
                'doing' => $note->doing,
                'author_id' => $note->by === null ? null : $this->ids['users'][$note->by],
                'created_at' => now(),
                'updated_at' => now(),
            ]);
        }
        foreach ($placed->calls as $call) {
            $this->write('calls', [
                'kpi_unit_id' => $id,
                'period' => $this->dates->date($call->period),
                'span' => $call->span->value,
                'status' => $call->status->value,
                'reason' => $call->reason,
                'over' => (string) $call->over,
                'author_id' => $call->by === null ? null : $this->ids['users'][$call->by],
                'created_at' => now(),
                'updated_at' => now(),
            ]);
        }
    }

    private function actions(MeasurementEntry $entry, int $id): void
    {
        foreach ($entry->actions as $action) {
            $this->write('actions', [
                'kpi_unit_id' => $id,
                'period' => $this->dates->date($action->period),
                'what' => $action->what,
                'who' => $action->who,
                'due' => $action->due,
                'state' => $action->state,
                'outcome' => $action->outcome,
                'ended' => $action->ended,
                'author_id' => $action->by === null ? null : $this->ids['users'][$action->by],
                'created_at' => now(),
                'updated_at' => now(),
            ]);
        }
    }

    private function figures(MeasurementEntry $entry, int $id): void
    {
        $placed = $entry->placed;
        $frequency = $placed->definition->frequency;
        $isJudged = $placed->definition->kind === Kind::Judged;
        foreach ($placed->readings->all() as $period => $figure) {
            $this->write('readings', [
                'kpi_unit_id' => $id,
                'period' => $this->dates->date(Period::parse($period, $frequency)),
                'actual' => $isJudged ? null : $figure,
                'colour' => $isJudged ? Status::ofScore((int) $figure)->value : null,
                'state' => isset($entry->submitted[$period]) ? ReadingStage::Submitted->value : ReadingStage::Entered->value,
                'as_of' => $entry->asOf[$period] ?? null,
                'created_at' => now(),
                'updated_at' => now(),
            ]);
        }
        foreach ($entry->parts as $part => $series) {
            foreach ($series->all() as $period => $figure) {
                $this->write('reading_parts', ['kpi_unit_id' => $id, 'period' => $this->dates->date(Period::parse($period, $frequency)), 'part' => (string) $part, 'actual' => $figure]);
            }
        }
        $isBand = $placed->definition->polarity === Polarity::Band;
        $form = fn (string $figure, ?string $upper): array => $isBand
            ? ['target' => null, 'low' => $figure, 'high' => $upper]
            : ['target' => $figure, 'low' => null, 'high' => null];
        $upper = $placed->upperTargets->all();
        foreach ($placed->targets->all() as $period => $figure) {
            $this->write('targets', ['kpi_unit_id' => $id, 'period' => $this->dates->date(Period::parse($period, $frequency)), ...$form($figure, $upper[$period] ?? null)]);
        }
        foreach ($frequency === Frequency::Year ? [] : $placed->yearTargets as $year => $figure) {
            $this->write('year_targets', ['kpi_unit_id' => $id, 'year' => (int) substr($year, 2), ...$form($figure, $placed->upperYearTargets[$year] ?? null)]);
        }
    }

    /** Once all figures are there: in a closed month none could be written. */
    private function closings(Workbook $workbook): void
    {
        foreach ($workbook->closings as $unit => $months) {
            foreach ($months as $month) {
                $this->write('period_states', ['unit_id' => $this->ids['units'][$unit], 'period' => Month::date(Period::parse($month))]);
            }
        }
        $this->flush();
    }

    /** @param  list<RuleSet>  $rules */
    private function rules(array $rules, KpiEntry $kpi, ?int $measurement): void
    {
        foreach ($rules as $rule) {
            $this->write('rule_sets', ['kpi_id' => $this->ids['kpis'][$kpi->code], 'kpi_unit_id' => $measurement, ...KpiColumns::rule($rule)]);
        }
    }

    /** @param  array<string, mixed>  $row */
    private function write(string $table, array $row): void
    {
        $this->waiting[$table][] = $row;
        if (count($this->waiting[$table]) >= self::CHUNK) {
            $this->database->table($table)->insert($this->waiting[$table]);
            $this->waiting[$table] = [];
        }
    }

    private function flush(): void
    {
        foreach ($this->waiting as $table => $rows) {
            $this->database->table($table)->insert($rows);
        }
        $this->waiting = [];
    }
}
