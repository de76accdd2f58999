<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\Closures;
use App\Figures\CountedWriter;
use App\Figures\FigureWriter;
use App\Figures\KpiColumns;
use App\Figures\Layer;
use App\Figures\MeasurementLock;
use App\Figures\MeasurementStore;
use App\Figures\Outcome;
use App\Figures\WantedCell;
use App\Figures\Written;
use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\Reading;
use App\Models\Theme;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Records\RecordSets;
use App\Support\Conflict;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\Trail;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\KpiEntry;

/**
 * Defines a KPI, or changes its definition: with its dated rule sets, where it is measured, its drivers and targets, or
 * not at all. What is closed keeps its colours.
 *
 * Triggers write the trail and mark what was judged before (docs/architecture.md, Hidden hops).
 */
final readonly class SaveKpi
{
    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private ClosedHistory $history,
        private MeasurementStore $kpis,
        private MeasurementLock $lock,
        private FigureWriter $writer,
        private Trail $trail,
        private Rights $rights,
        private RecordSets $sets,
        private CountedWriter $counts,
        private Closures $closures,
        private FinancialYear $year,
    ) {}

    /** Of a figure that was counted and is kept as if it had been entered. */
    private const DECIMALS = 8;

    /**
     * @throws Conflict when the definition was changed since it was read
     * @throws ValidationException when a unit that has figures would be taken away, or a closed month recoloured
     */
    public function __invoke(KpiDraft $draft, ?Kpi $kpi, User $user): Kpi
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($draft, $kpi, $user): Kpi {
            $this->lock->holdKpis($kpi === null ? [] : [$kpi->id]);

            return $this->history->keep($kpi === null ? [] : [$kpi->id], 'rule.from', fn (): Kpi => $this->save($draft, $kpi, $user));
        });
    }

    private function save(KpiDraft $draft, ?Kpi $kpi, User $user): Kpi
    {
        $this->keepToPart($draft->entry, $user);
        $this->keepParts($draft->entry, $kpi);
        $wasCounted = $kpi?->kind === Kind::Records->value;
        $this->makeRoom($draft, $kpi, $user);
        $kept = $wasCounted && $draft->entry->definition->kind !== Kind::Records ? $this->counted($kpi) : [];
        $kpi = $this->saveDefinition($draft, $kpi);
        $this->saveRules($kpi, null, $draft->entry->definition->rules);
        $this->saveDrivers($kpi, $draft->entry->drivers);
        $this->saveUnits($kpi, $draft->entry);
        $this->saveTargets($kpi, $draft, $user);
        if ($draft->entry->definition->kind === Kind::Records) {
            ($this->counts)([$kpi->id]);
        } elseif ($wasCounted) {
            $this->counts->clear($kpi->id);
            $this->keepFigures($kpi, $kept, $user);
        }

        return $kpi;
    }

    /** From the month on from which it is counted, what was entered gives way to what is counted; what is closed stays. */
    private function makeRoom(KpiDraft $draft, ?Kpi $kpi, User $user): void
    {
        $counted = $draft->entry->definition->counted;
        if ($counted === null || $kpi === null || $kpi->kind === Kind::Records->value) {
            return;
        }
        $wanted = [];
        foreach ($this->kpis->some($this->places($kpi), $counted->from ?? Period::month(1990, 1), Month::running()) as $facts) {
            $actuals = $facts->measurement->actuals;
            foreach ($actuals instanceof Series ? array_keys($actuals->all()) : [] as $key) {
                $period = Period::parse((string) $key, $facts->measurement->definition->frequency);
                if (! $counted->beginsAfter($period, $this->year) && ! $this->closures->locks($facts, $period)) {
                    $wanted[] = new WantedCell($facts, $period, new CellValue, null);
                }
            }
        }
        $this->writer->write(Layer::Reading, $wanted, $user);
    }

    /** @return array<int, array<string, BigDecimal>> figures that are counted, by measurement and period */
    private function counted(Kpi $kpi): array
    {
        $figures = [];
        foreach ($this->kpis->some($this->places($kpi), Period::month(1990, 1), Month::running()) as $id => $facts) {
            $actuals = $facts->measurement->actuals;
            $first = $actuals->earliest();
            foreach ($first === null ? [] : Period::parse($first, $facts->measurement->definition->frequency)->to($this->year->holding($facts->measurement->definition->frequency, $this->year->days(Month::running())[1])) as $period) {
                $figure = $actuals->figure($period);
                if ($figure !== null && ! $this->closures->locks($facts, $period)) {
                    $figures[$id][$period->key()] = $figure->rounded(self::DECIMALS)->stripTrailingZeros();
                }
            }
        }

        return $figures;
    }

    /**
     * A KPI that is entered from now on keeps the figures that were counted, as if somebody had entered them.
     *
     * @param  array<int, array<string, BigDecimal>>  $figures
     */
    private function keepFigures(Kpi $kpi, array $figures, User $user): void
    {
        if ($kpi->kind !== Kind::Entered->value) {
            return;
        }
        $wanted = [];
        foreach ($this->kpis->described(array_keys($figures)) as $id => $facts) {
            foreach ($figures[$id] as $key => $figure) {
                $wanted[] = new WantedCell($facts, Period::parse($key, $facts->measurement->definition->frequency), new CellValue($figure), null);
            }
        }
        $this->writer->write(Layer::Reading, $wanted, $user);
    }

    /** @return list<int> */
    private function places(Kpi $kpi): array
    {
        return array_values($kpi->measurements->map(fn (Measurement $measurement): int => $measurement->id)->all());
    }

    /** @throws ValidationException where it would be measured beyond the part of the tree for which the person defines */
    private function keepToPart(KpiEntry $entry, User $user): void
    {
        foreach ($entry->units as $at => $place) {
            $unit = $this->organisation->byCode($place->placed->unit);
            if ($unit !== null && ! $this->rights->analyses($user, $unit->id)) {
                throw ValidationException::withMessages(["units.{$at}.unit" => "What is measured in {$unit->name} is not yours to define."]);
            }
        }
        if (! $this->rights->analyses($user, $this->department($entry))) {
            throw ValidationException::withMessages(['department' => 'Choose a department for which you define KPIs.']);
        }
    }

    /** @throws ValidationException where a part that has figures would be taken away */
    private function keepParts(KpiEntry $entry, ?Kpi $kpi): void
    {
        $used = $kpi === null ? [] : $this->database->table('reading_parts')->whereIn('kpi_unit_id', $this->database->table('kpi_unit')->where('kpi_id', $kpi->id)->select('id'))->distinct()->orderBy('part')->pluck('part')->all();
        foreach ($used as $part) {
            if (is_string($part) && ! in_array($part, $entry->parts, true)) {
                throw ValidationException::withMessages(['parts' => "The part '{$part}' has figures, so it stays."]);
            }
        }
    }

    private function saveDefinition(KpiDraft $draft, ?Kpi $kpi): Kpi
    {
        $entry = $draft->entry;
        $columns = [
            ...KpiColumns::definition($entry),
            'department_id' => $this->department($entry),
            'theme_id' => $entry->theme === null ? null : Theme::query()->firstOrCreate(['name' => $entry->theme], ['position' => 1 + (int) Theme::query()->max('position')])->id,
            'objective_id' => $entry->objective === null ? null : $this->database->table('objectives')->where('code', $entry->objective)->value('id'),
            'record_set_id' => $entry->definition->counted === null ? null : $this->sets->byCode($entry->definition->counted->records)?->id,
            'weighted_by_id' => $entry->definition->weightedBy === null ? null : $this->database->table('kpis')->where('code', $entry->definition->weightedBy)->value('id'),
            'updated_at' => now(),
        ];
        if ($kpi === null) {
            return Kpi::query()->findOrFail($this->database->table('kpis')->insertGetId([...$columns, 'created_at' => now()]));
        }
        $changed = $this->database->table('kpis')->where('id', $kpi->id)->where('version', $draft->version)->update([...$columns, 'version' => $draft->version + 1]);
        if ($changed === 0) {
            throw new Conflict('This definition was changed by somebody else since you opened it. Your changes are kept here, but not saved.', [
                'text' => $kpi->name,
                'version' => $kpi->version,
                'by' => '',
            ]);
        }

        return $kpi->refresh();
    }

    /** The unit that answers for it: where nothing is said, the one below the organisation in which it is measured first. */
    private function department(KpiEntry $entry): int
    {
        $unit = $this->organisation->byCode($entry->department ?? $entry->units[0]->placed->unit ?? '') ?? array_values($this->organisation->units())[0];
        while ($entry->department === null && $unit->parent_id !== null && $this->organisation->unit($unit->parent_id)->parent_id !== null) {
            $unit = $this->organisation->unit($unit->parent_id);
        }

        return $unit->id;
    }

    /** @param  list<RuleSet>  $rules  all of them; those that are there no longer go */
    private function saveRules(Kpi $kpi, ?int $measurement, array $rules): void
    {
        $key = ['kpi_id' => $kpi->id, 'kpi_unit_id' => $measurement];
        $columns = array_column(array_map(KpiColumns::rule(...), $rules), null, 'valid_from');
        $this->database->table('rule_sets')->where($key)->whereNotIn('valid_from', array_keys($columns))->delete();
        foreach ($columns as $from => $rule) {
            $this->database->table('rule_sets')->updateOrInsert([...$key, 'valid_from' => $from], $rule);
        }
    }

    /** @param  list<string>  $drivers  codes */
    private function saveDrivers(Kpi $kpi, array $drivers): void
    {
        $ids = $this->database->table('kpis')->whereIn('code', $drivers)->pluck('id', 'code');
        $this->database->table('kpi_drivers')->where('kpi_id', $kpi->id)->whereNotIn('driver_id', $ids->values())->delete();
        foreach ($drivers as $position => $code) {
            $this->database->table('kpi_drivers')->updateOrInsert(['kpi_id' => $kpi->id, 'driver_id' => $ids[$code]], ['position' => $position]);
        }
    }

    private function saveUnits(Kpi $kpi, KpiEntry $entry): void
    {
        $ids = [];
        foreach ($entry->units as $unit) {
            $ids[$unit->placed->unit] = $this->organisation->byCode($unit->placed->unit)->id ?? throw new \LogicException('A unit that passed the checks is there.');
        }
        $this->removeUnits($kpi, array_values($ids));
        $owners = User::query()->pluck('id', 'email');
        $last = $this->database->table('kpi_unit')->whereIn('unit_id', $ids)->groupBy('unit_id')->selectRaw('unit_id, max(position) AS last')->pluck('last', 'unit_id');
        foreach ($entry->units as $unit) {
            $key = ['kpi_id' => $kpi->id, 'unit_id' => $ids[$unit->placed->unit]];
            $this->database->table('kpi_unit')->updateOrInsert($key, [
                'weight' => (string) $unit->weight,
                'owner_id' => $unit->owner === null ? null : $owners[$unit->owner] ?? null,
                'position' => $unit->position ?? 1 + $last->get($key['unit_id'], 0),
                'measured_from' => $unit->placed->tenure->from === null ? null : Month::date($unit->placed->tenure->from),
                'measured_to' => $unit->placed->tenure->to === null ? null : Month::date($unit->placed->tenure->to),
                'is_gathered' => $unit->placed->isGathered,
            ]);
            $this->saveRules($kpi, $this->database->table('kpi_unit')->where($key)->value('id'), $unit->placed->ownRules);
        }
    }

    /** @param  list<int>  $kept */
    private function removeUnits(Kpi $kpi, array $kept): void
    {
        $removed = Measurement::query()->where('kpi_id', $kpi->id)->whereNotIn('unit_id', $kept)->pluck('unit_id', 'id');
        $withFigures = Reading::query()->whereIn('kpi_unit_id', $removed->keys())->value('kpi_unit_id');
        if ($withFigures !== null) {
            $name = $this->organisation->unit($removed[$withFigures])->name;
            throw ValidationException::withMessages(['units' => "{$name} has figures of this KPI, so it stays. Give it a last month instead."]);
        }
        Measurement::query()->whereKey($removed->keys())->delete();
    }

    /** Targets that were not touched stay as they are by now. */
    private function saveTargets(Kpi $kpi, KpiDraft $draft, User $user): void
    {
        $measurement = Measurement::query()->where('kpi_id', $kpi->id)->pluck('id', 'unit_id');
        $ids = [];
        foreach ($draft->entry->units as $unit) {
            $ids[$unit->placed->unit] = $measurement[$this->organisation->byCode($unit->placed->unit)->id ?? 0];
        }
        $touched = fn (array $pair): bool => $pair[1] === null || ! $pair[0]->equals($pair[1]);
        $facts = $this->kpis->described(array_values($ids));
        $wanted = [];
        foreach ($draft->targets as $code => $periods) {
            foreach (array_filter($periods, $touched) as $key => [$value, $seen]) {
                $wanted["targets.{$code}.{$key}"] = new WantedCell($facts[$ids[$code]], Period::parse($key, $draft->entry->definition->frequency), $value, $seen);
            }
        }
        $text = new CellText(new NumberSetting($user->locale));
        $this->refuse($this->writer->write(Layer::Target, $wanted, $user), $draft, $text);
        $years = [];
        foreach (array_filter($draft->yearTargets, $touched) as $code => $pair) {
            $years[$ids[$code]] = $pair;
        }
        $codes = array_flip($ids);
        $written = [];
        foreach ($this->writer->writeYears($years, $draft->year) as $id => $each) {
            $written["yearTargets.{$codes[$id]}"] = $each;
        }
        $this->refuse($written, $draft, $text);
    }

    /**
     * @param  array<array-key, Written>  $written  by field
     *
     * @throws ValidationException with what stands there now
     */
    private function refuse(array $written, KpiDraft $draft, CellText $text): void
    {
        $messages = [];
        foreach ($written as $field => $each) {
            $stands = $each->standing->value instanceof CellValue ? $text->write($draft->entry->definition, $draft->entry->isScaled, $each->standing->value) : '';
            $messages[$field] = match ($each->outcome) {
                Outcome::Refused => $each->reason,
                Outcome::Conflict => 'Somebody changed this in the meantime: it is '.($stands === '' ? 'blank' : $stands).' now. Open the KPI again to see all of it.',
                default => '',
            };
        }
        $messages = array_filter($messages, fn (string $message): bool => $message !== '');
        if ($messages !== []) {
            throw ValidationException::withMessages($messages);
        }
    }
}
