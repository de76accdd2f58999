<?php

declare(strict_types=1);

namespace App\Figures;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Records\KeptSet;
use App\Records\RecordKeeper;
use App\Records\RecordSets;
use App\Support\Installation;
use App\Support\Month;
use App\Support\PeriodDate;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Workbook\ActionEntry;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\MeasurementEntry;
use Kybernet\Core\Workbook\NoteEntry;
use Kybernet\Core\Workbook\PersonEntry;
use Kybernet\Core\Workbook\RecordSetEntry;
use Kybernet\Core\Workbook\Sourcing;
use Kybernet\Core\Workbook\UnitEntry;
use Kybernet\Core\Workbook\Workbook;
use stdClass;

/**
 * The whole database as a workbook: everything that is defined and every figure. Passwords, versions and times stay.
 */
final readonly class DatabaseWorkbook
{
    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private MeasurementStore $kpis,
        private PeriodDate $dates,
        private FinancialYear $year,
        private Installation $installation,
        private RecordSets $sets,
        private DefinitionRows $definitions,
        private RecordKeeper $records,
        private CountedRows $counted,
    ) {}

    public function read(): Workbook
    {
        return new Workbook(
            $this->year,
            $this->people(),
            array_values(array_map($this->unit(...), $this->organisation->units())),
            $this->database->table('objectives')->orderBy('position')->orderBy('id')->pluck('name', 'code')->all(),
            array_values($this->database->table('themes')->orderBy('position')->orderBy('name')->pluck('name')->all()),
            $this->kpis(),
            $this->closings(),
            $this->recordSets(true),
            $this->installation->timeZone(),
        );
    }

    /** The same to be assessed here: what is counted from records is as it is kept. */
    public function assessable(): Workbook
    {
        return new Workbook(
            $this->year,
            [],
            array_values(array_map($this->unit(...), $this->organisation->units())),
            [],
            [],
            $this->kpis(isTold: false),
            [],
            $this->recordSets(false),
            $this->installation->timeZone(),
            $this->counted->counters($this->kpis->rows(), null, null),
        );
    }

    /** All that is defined, without figures, notes and people. */
    public function definitions(): Workbook
    {
        return new Workbook(
            $this->year,
            [],
            array_values(array_map($this->unit(...), $this->organisation->units())),
            $this->database->table('objectives')->orderBy('position')->orderBy('id')->pluck('name', 'code')->all(),
            [],
            $this->kpis(null, self::noFigures(), self::noFigures()),
            [],
            $this->recordSets(false),
        );
    }

    /** One KPI, with its targets and readings of the months given. */
    public function kpi(int $id, Period $first, Period $last): KpiEntry
    {
        return $this->kpis($id, $first, $last)[0] ?? throw new \LogicException('A KPI that was found is there.');
    }

    /** A month from which nobody has figures. */
    private static function noFigures(): Period
    {
        return Period::month(2, 1);
    }

    /** @return array<string, list<string>> */
    private function closings(): array
    {
        $closings = [];
        foreach ($this->database->table('period_states')->join('units', 'units.id', '=', 'period_states.unit_id')
            ->orderBy('period')->get(['units.code', 'period']) as $closing) {
            $closings[$closing->code][] = Month::ofDate($closing->period)->key();
        }
        // In the order of the units, so that the same is written in the same way.
        $places = array_flip(array_keys($this->organisation->parents()));
        uksort($closings, fn (string $one, string $other): int => $places[$one] <=> $places[$other]);

        return $closings;
    }

    /** @return list<PersonEntry> */
    private function people(): array
    {
        $roles = [];
        /** @var list<object{user_id: int, role: string, code: string}> $grants */
        $grants = $this->database->select('SELECT user_id, role, code FROM grants JOIN units ON units.id = unit_id ORDER BY grants.id');
        foreach ($grants as $grant) {
            $roles[$grant->user_id][] = ['role' => $grant->role, 'unit' => $grant->code];
        }

        return array_values(User::query()->orderBy('id')->get()
            ->map(fn (User $user): PersonEntry => new PersonEntry($user->email, $user->name, $roles[$user->id][0]['role'] ?? Role::Reader->value, $roles[$user->id][0]['unit'] ?? null, $user->locale, $user->blocked_at !== null, array_slice($roles[$user->id] ?? [], 1)))->all());
    }

    private function unit(Unit $unit): UnitEntry
    {
        return new UnitEntry(
            $unit->code,
            $unit->name,
            $unit->kind,
            $unit->parent_id === null ? null : $this->organisation->unit($unit->parent_id)->code,
            BigDecimal::of($unit->weight)->stripTrailingZeros(),
            Organisation::method($unit),
        );
    }

    /** @return list<RecordSetEntry> */
    private function recordSets(bool $withRecords): array
    {
        return array_values(array_map(fn (KeptSet $set): RecordSetEntry => $withRecords
            ? new RecordSetEntry($set->entry->name, $set->entry->key, $set->set(), $set->entry->meanings, $set->entry->sensitive, fn (): \Generator => $this->records->rows($set))
            : $set->entry, $this->sets->all()));
    }

    /**
     * @param  bool  $isTold  whether counted figures stand among the readings that the records of a workbook do not give
     * @return list<KpiEntry>
     */
    private function kpis(?int $id = null, ?Period $first = null, ?Period $last = null, bool $isTold = true): array
    {
        $drivers = [];
        foreach ($this->database->table('kpi_drivers')->join('kpis', 'kpis.id', '=', 'kpi_drivers.driver_id')
            ->orderBy('kpi_drivers.position')->get(['kpi_drivers.kpi_id', 'kpis.code']) as $driver) {
            $drivers[$driver->kpi_id][] = $driver->code;
        }
        $places = $this->places($id, $first, $last, $isTold);

        return array_values($this->database->table('kpis')
            ->leftJoin('units', 'units.id', '=', 'kpis.department_id')
            ->leftJoin('themes', 'themes.id', '=', 'kpis.theme_id')
            ->leftJoin('objectives', 'objectives.id', '=', 'kpis.objective_id')
            ->when($id !== null, fn (Builder $query): Builder => $query->where('kpis.id', $id))
            ->orderBy('kpis.id')
            ->get(['kpis.*', 'units.code as department', 'themes.name as theme', 'objectives.code as objective'])
            ->map(fn (stdClass $kpi): KpiEntry => new KpiEntry(
                $kpi->code,
                $kpi->name,
                $kpi->purpose === '' ? null : $kpi->purpose,
                $kpi->level,
                $kpi->scaled,
                $kpi->department,
                $kpi->theme,
                $kpi->objective,
                $drivers[$kpi->id] ?? [],
                array_filter(['green' => $kpi->text_green, 'amber' => $kpi->text_amber, 'red' => $kpi->text_red], is_string(...)),
                $places[$kpi->id]['definition'] ?? $this->kpis->definitionOf($kpi->id),
                $places[$kpi->id]['units'] ?? [],
                new Sourcing($kpi->source === '' ? null : $kpi->source, $kpi->due_day, $kpi->data_available, $kpi->definition_agreed, $kpi->note_required),
                $this->definitions->splits($kpi),
                $kpi->parts === null ? [] : json_decode($kpi->parts, true, flags: JSON_THROW_ON_ERROR),
            ))->all());
    }

    /** @return array<int, array{definition: Definition, units: list<MeasurementEntry>}> by KPI */
    private function places(?int $id, ?Period $first, ?Period $last, bool $isTold): array
    {
        $notes = [];
        foreach ($first !== null ? [] : $this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->get(['kpi_unit_id', 'period', 'text', 'outlook', 'doing', 'users.email as by']) as $note) {
            $notes[$note->kpi_unit_id][] = $note;
        }
        $states = [];
        foreach ($first !== null ? [] : $this->database->table('readings')->whereRaw("(state = 'submitted' OR as_of IS NOT NULL)")->whereRaw('(actual IS NOT NULL OR colour IS NOT NULL)')
            ->get(['kpi_unit_id', 'period', 'state', 'as_of']) as $reading) {
            $states[$reading->kpi_unit_id][] = $reading;
        }
        $actions = [];
        foreach ($first !== null ? [] : $this->database->table('actions')->leftJoin('users', 'users.id', '=', 'actions.author_id')->orderBy('actions.id')
            ->get(['kpi_unit_id', 'period', 'what', 'who', 'due', 'state', 'outcome', 'ended', 'users.email as by']) as $action) {
            $actions[$action->kpi_unit_id][] = $action;
        }
        $places = [];
        $all = $this->kpis->placed($id, $first, $last);
        $told = $first !== null || ! $isTold ? [] : $this->counted->told($all);
        $parts = [];
        foreach ($first !== null ? [] : $this->database->table('reading_parts')->orderBy('period')->selectRaw('kpi_unit_id, period, part, trim_scale(actual)::text AS actual')->get() as $part) {
            $parts[$part->kpi_unit_id][] = $part;
        }
        foreach ($all as [$row, $placed]) {
            $placed = isset($told[$row->id]) ? $placed->reading(new Series($placed->readings->all() + $told[$row->id])) : $placed;
            // In the order in which they are defined, whatever order they were written in.
            $typed = array_fill_keys(DefinitionRows::parts($row), []);
            foreach ($parts[$row->id] ?? [] as $part) {
                $typed[$part->part][$this->dates->period($part->period, $placed->definition->frequency)->key()] = $part->actual;
            }
            $written = $submitted = $asOf = [];
            foreach ($states[$row->id] ?? [] as $reading) {
                $key = $this->dates->period($reading->period, $placed->definition->frequency)->key();
                $submitted += $reading->state === 'submitted' ? [$key => true] : [];
                $asOf += $reading->as_of === null ? [] : [$key => $reading->as_of];
            }
            foreach ($notes[$row->id] ?? [] as $note) {
                $written[$this->dates->period($note->period, $placed->definition->frequency)->key()] = new NoteEntry($note->text, $note->by, $note->outlook, $note->doing);
            }
            $places[$row->kpi_id]['definition'] = $placed->definition;
            $places[$row->kpi_id]['units'][] = new MeasurementEntry(
                $placed,
                BigDecimal::of($row->weight)->stripTrailingZeros(),
                $row->position,
                $row->owner_email,
                $written,
                $submitted,
                $asOf,
                array_map(fn (stdClass $action): ActionEntry => new ActionEntry(
                    $this->dates->period($action->period, $placed->definition->frequency), $action->what, $action->who, $action->due, $action->state, $action->outcome, $action->ended, $action->by,
                ), $actions[$row->id] ?? []),
                array_map(fn (array $figures): Series => new Series($figures), $typed),
            );
        }

        return $places;
    }
}
