<?php

declare(strict_types=1);

namespace App\Import;

use App\Support\KpiColumns;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\Trail;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\KpiUnitEntry;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\UnitEntry;
use Kybernet\Core\Workbook\Workbook;

/**
 * Puts a workbook in the place of everything that the database holds, or changes nothing at all. Accounts stay; people
 * of the workbook who have none get one that nobody can sign in with until a password is set.
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

    public function __construct(
        private readonly Connection $database,
        private readonly PeriodDate $dates,
        private readonly FinancialYear $year,
        private readonly Hasher $hasher,
        private readonly Trail $trail,
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
            $this->waiting = $this->ids = [];
            $homes = $this->database->table('users')->join('units', 'units.id', '=', 'users.unit_id')->pluck('units.code', 'users.email')->all();
            // People belong to units that go and come back within this transaction.
            $this->database->statement('SET CONSTRAINTS users_unit_id_foreign DEFERRED');
            foreach (self::TABLES as $table) {
                $this->database->table($table)->delete();
            }
            $this->units($workbook);
            $this->people($workbook, $homes);
            $this->names($workbook);
            $this->kpis($workbook);
            $this->flush();
            $this->closings($workbook);
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
        if ($workbook->year->startMonth !== $this->year->startMonth) {
            $problems[] = new Problem('/calendar/yearStartMonth', 'calendar', "The financial year here starts in month {$this->year->startMonth}; KYBERNET_YEAR_START_MONTH sets it.");
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
            $this->ids['units'][$unit->code] = $this->database->table('units')->insertGetId([
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
                'roll_up' => $unit->rollUp->name,
                'roll_up_green' => (string) $unit->rollUp->green,
                'roll_up_other' => (string) $unit->rollUp->amberOrRed,
            ]);
        };
        foreach ($workbook->units as $unit) {
            $place($unit);
        }
    }

    /** @param  array<string, string>  $homes  the code of the unit that each account belonged to, by e-mail address */
    private function people(Workbook $workbook, array $homes): void
    {
        $root = $this->ids['units'][array_values(array_filter($workbook->units, fn (UnitEntry $unit): bool => $unit->parent === null))[0]->code];
        foreach ($homes as $email => $home) {
            $this->database->table('users')->where('email', $email)->update(['unit_id' => $this->ids['units'][$home] ?? $root]);
        }
        $locked = null;
        foreach ($workbook->people as $person) {
            $columns = [
                'name' => $person->name,
                'role' => $person->role,
                'unit_id' => $person->unit === null ? $root : $this->ids['units'][$person->unit],
                'locale' => $person->locale ?? 'en-GB',
                'updated_at' => now(),
            ];
            if (isset($homes[$person->email])) {
                $this->database->table('users')->where('email', $person->email)->update($columns);
            } else {
                $locked ??= $this->hasher->make(Str::random(64));
                $this->database->table('users')->insert([...$columns, 'email' => $person->email, 'password' => $locked, 'created_at' => now()]);
            }
        }
        $this->ids['users'] = $this->database->table('users')->pluck('id', 'email')->all();
    }

    private function names(Workbook $workbook): void
    {
        $position = 0;
        foreach ($workbook->objectives as $code => $name) {
            $this->ids['objectives'][$code] = $this->database->table('objectives')->insertGetId(['code' => $code, 'name' => $name, 'position' => $position++]);
        }
        $used = array_values(array_filter(array_map(fn (KpiEntry $kpi): ?string => $kpi->theme, $workbook->kpis), is_string(...)));
        foreach (array_values(array_unique([...$workbook->themes, ...$used])) as $index => $theme) {
            $this->ids['themes'][$theme] = $this->database->table('themes')->insertGetId(['name' => $theme, 'position' => $index]);
        }
    }

    private function kpis(Workbook $workbook): void
    {
        $units = array_column($workbook->units, null, 'code');
        $positions = [];
        // A weighting KPI may stand after the one that it weights.
        $this->database->statement('SET CONSTRAINTS kpis_weighted_by_id_foreign DEFERRED');
        foreach ($workbook->kpis as $kpi) {
            $this->ids['kpis'][$kpi->code] = $this->nextId();
        }
        foreach ($workbook->kpis as $kpi) {
            $this->database->table('kpis')->insert($this->kpi($kpi, $units));
        }
        foreach ($workbook->kpis as $kpi) {
            $this->rules($kpi->definition->rules, $kpi, null);
            foreach ($kpi->drivers as $index => $driver) {
                $this->write('kpi_drivers', ['kpi_id' => $this->ids['kpis'][$kpi->code], 'driver_id' => $this->ids['kpis'][$driver], 'position' => $index]);
            }
            foreach ($kpi->units as $entry) {
                $unit = $entry->placed->unit;
                $positions[$unit] = ($positions[$unit] ?? -1) + 1;
                $this->place($kpi, $entry, $positions[$unit]);
            }
        }
    }

    private function nextId(): int
    {
        return (int) $this->database->scalar("SELECT nextval(pg_get_serial_sequence('kpis', 'id'))");
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

    private function place(KpiEntry $kpi, KpiUnitEntry $entry, int $position): void
    {
        $placed = $entry->placed;
        $frequency = $placed->definition->frequency;
        $baseline = $placed->baseline === null || $placed->baseline === [] ? null : $placed->baseline;
        $id = $this->database->table('kpi_unit')->insertGetId([
            'kpi_id' => $this->ids['kpis'][$kpi->code],
            'unit_id' => $this->ids['units'][$placed->unit],
            'owner_id' => $entry->owner === null ? null : $this->ids['users'][$entry->owner],
            'weight' => (string) $entry->weight,
            'position' => $entry->position ?? $position,
            'measured_from' => $placed->tenure->from === null ? null : Month::date($placed->tenure->from),
            'measured_to' => $placed->tenure->to === null ? null : Month::date($placed->tenure->to),
            'is_gathered' => $placed->isGathered,
            'baseline_from' => $baseline === null ? null : $this->dates->date($baseline[0]),
            'baseline_to' => $baseline === null ? null : $this->dates->date($baseline[count($baseline) - 1]),
        ]);
        $this->rules($placed->ownRules, $kpi, $id);
        $this->figures($entry, $id);
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

    private function figures(KpiUnitEntry $entry, int $id): void
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
                'state' => isset($entry->submitted[$period]) ? 'submitted' : 'entered',
                'as_of' => $entry->asOf[$period] ?? null,
                'created_at' => now(),
                'updated_at' => now(),
            ]);
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
    private function rules(array $rules, KpiEntry $kpi, ?int $kpiUnit): void
    {
        foreach ($rules as $rule) {
            $this->write('rule_sets', ['kpi_id' => $this->ids['kpis'][$kpi->code], 'kpi_unit_id' => $kpiUnit, ...KpiColumns::rule($rule)]);
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
