<?php

declare(strict_types=1);

namespace App\Trail;

use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Trail\Views\Change;
use App\Trail\Views\ChangedField;
use App\Trail\Views\ChangesPage;
use App\Views\PersonView;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use stdClass;

/**
 * Reads the trail that the database's triggers write, and puts it in words.
 */
final readonly class ChangeReader
{
    public const SUBJECTS = ['reading', 'target', 'note', 'action', 'call', 'definition', 'closing', 'import', 'source', 'list', 'unit', 'briefing', 'person', 'settings'];

    private const PAGE = 100;

    /** @var array<string, list<string>> */
    private const TABLES = [
        'reading' => ['readings'], 'target' => ['targets', 'year_targets'], 'note' => ['notes'], 'action' => ['actions'], 'call' => ['calls'],
        'definition' => ['kpis', 'rule_sets', 'kpi_unit', 'kpi_drivers'], 'closing' => ['period_states'],
        'import' => ['imports', 'workbook'], 'source' => ['record_sets', 'record_loads'], 'list' => ['objectives', 'themes'], 'unit' => ['units', 'unit_shapes'], 'briefing' => ['briefings', 'briefing_issues', 'briefing_links'], 'person' => ['users', 'grants', 'stand_ins'], 'settings' => ['installation', 'tokens', 'logos', 'audit_entries'],
    ];

    private const WORDS = [
        'readings' => 'reading', 'targets' => 'target', 'year_targets' => 'year target', 'notes' => 'note', 'actions' => 'action', 'calls' => 'call', 'kpis' => 'definition',
        'rule_sets' => 'rule set', 'kpi_unit' => 'where it is measured', 'kpi_drivers' => 'driver', 'period_states' => 'closing',
        'imports' => 'import', 'record_sets' => 'record set', 'record_loads' => 'load of records', 'workbook' => 'workbook', 'objectives' => 'objective', 'themes' => 'theme', 'units' => 'unit', 'users' => 'person', 'grants' => 'role', 'stand_ins' => 'standing in', 'installation' => 'settings', 'tokens' => 'program', 'logos' => 'logo', 'unit_shapes' => 'shape on the map', 'briefings' => 'briefing', 'briefing_issues' => 'issue of a briefing', 'briefing_links' => 'link for reading', 'audit_entries' => 'trail',
    ];

    /** Fields by what they are called in a sentence; others are the database's own business. */
    private const FIELDS = [
        'actual' => '', 'colour' => '', 'target' => '', 'low' => 'from', 'high' => 'to', 'state' => 'state', 'as_of' => 'as of',
        'text' => 'reason', 'outlook' => 'outlook', 'doing' => 'being done', 'what' => 'what', 'who' => 'who', 'due' => 'by', 'outcome' => 'outcome', 'ended' => 'ended', 'status' => 'called', 'reason' => 'because', 'span' => 'span',
        'code' => 'code', 'name' => 'name', 'email' => 'address', 'user_id' => 'person', 'role' => 'role', 'substitute_id' => 'by', 'first_day' => 'from', 'last_day' => 'up to', 'year_start_month' => 'year starts in month', 'time_zone' => 'time zone', 'currency' => 'currency', 'is_demonstration' => 'demonstration', 'is_own' => 'for an organisation of one’s own', 'needs_second_factor' => 'second factor for everybody', 'session_hours' => 'hours of a session', 'callers' => 'who may call', 'session_days' => 'days of a session', 'trail_years' => 'years of the trail', 'law_years' => 'years that the law wants', 'accent' => 'colour on paper', 'mail_host' => 'mail server', 'mail_port' => 'its port', 'mail_user' => 'its account', 'mail_from' => 'mail from', 'points' => 'points', 'width' => 'width', 'height' => 'height', 'kpi_defaults' => 'a new KPI begins with', 'until' => 'until', 'revoked_at' => 'revoked', 'blocked_at' => 'blocked', 'purpose' => 'what it tells', 'measure' => 'measure', 'decimals' => 'decimals', 'scaled' => 'in k, m and bn',
        'parent_id' => 'below', 'department_id' => 'department', 'theme_id' => 'theme', 'objective_id' => 'objective', 'level' => 'level', 'polarity' => 'better when',
        'accumulation' => 'over time', 'kind' => 'kind', 'frequency' => 'frequency', 'formula' => 'formula', 'target_formula' => 'target worked out by', 'high_target_formula' => 'upper target worked out by', 'min' => 'lowest possible', 'max' => 'highest possible',
        'materiality' => 'materiality', 'gathering' => 'over units', 'weighted_by_id' => 'weighted by', 'source' => 'source', 'due_day' => 'due day',
        'data_available' => 'data available', 'definition_agreed' => 'definition agreed', 'note_required' => 'note required',
        'text_green' => 'green means', 'text_amber' => 'amber means', 'text_red' => 'red means',
        'reference' => 'compared with', 'green' => 'on course', 'amber' => 'drifting', 'periods' => 'previous periods', 'stretch' => 'stretch',
        'margin_low' => 'margin below', 'margin_high' => 'margin above', 'valid_from' => 'from', 'unit_id' => 'unit', 'owner_id' => 'owner', 'weight' => 'weight',
        'measured_from' => 'first month', 'retired_from' => 'retired from', 'roll_up' => 'rolls up', 'roll_up_green' => 'on course from', 'roll_up_other' => 'drifting from', 'measured_to' => 'last month', 'is_gathered' => 'gathered', 'driver_id' => 'driver', 'year' => 'year', 'file' => 'file', 'parts' => 'parts', 'noun' => 'several of them', 'way' => 'comes in by', 'mode' => 'a load', 'covers_from' => 'complete from', 'covers_to' => 'complete up to', 'unit_names' => 'other names of units', 'retired_at' => 'retired', 'brought' => 'brought', 'added' => 'new', 'gone' => 'gone', 'number' => 'number', 'audience' => 'readers', 'masked' => 'units as letters', 'ended_at' => 'ended at',
    ];

    private const FIGURES = ['actual', 'target', 'low', 'high', 'green', 'amber', 'stretch', 'margin_low', 'margin_high', 'min', 'max', 'materiality', 'weight', 'roll_up_green', 'roll_up_other'];

    private const MONTHS = ['valid_from', 'measured_from', 'measured_to', 'retired_from'];

    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private Rights $rights,
        private PeriodDate $dates,
    ) {}

    /** @param  array<string, string|int>  $filters  by kpi, unit, person, subject, month and before */
    public function page(array $filters, User $user): ChangesPage
    {
        $rows = array_values($this->query($filters, $user)->limit(self::PAGE + 1)->get()->all());
        $shown = array_slice($rows, 0, self::PAGE);
        $names = $this->names();
        $setting = new NumberSetting($user->locale);

        return new ChangesPage(
            array_map(fn (stdClass $row): Change => $this->change($row, $names, $setting), $shown),
            count($rows) > self::PAGE,
            array_values($this->database->table('users')->orderBy('name')->get(['id', 'name'])->map(fn (stdClass $person): PersonView => new PersonView($person->id, $person->name))->all()),
        );
    }

    /** @param  array<string, string|int>  $filters */
    private function query(array $filters, User $user): Builder
    {
        $units = isset($filters['unit']) ? $this->organisation->byCode((string) $filters['unit']) : null;
        $query = $this->database->table('audit_entries AS entry')
            ->leftJoin('kpi_unit', 'kpi_unit.id', '=', 'entry.kpi_unit_id')
            ->leftJoin('kpis', 'kpis.id', '=', 'entry.kpi_id')
            ->leftJoin('users', 'users.id', '=', 'entry.user_id')
            ->leftJoin('users AS away', 'away.id', '=', 'entry.standing_for_id')
            ->when(isset($filters['kpi']), fn (Builder $query): Builder => $query->where('kpis.code', $filters['kpi']))
            ->when($units !== null, fn (Builder $query): Builder => $query->whereRaw('coalesce(kpi_unit.unit_id, entry.unit_id) = ANY(?::bigint[])', [PgArray::of($this->organisation->below($units->id ?? 0))]))
            ->when(isset($filters['person']), fn (Builder $query): Builder => $query->where('entry.user_id', $filters['person']))
            ->when(isset($filters['subject']), fn (Builder $query): Builder => $query->whereIn('entry.subject', self::TABLES[(string) $filters['subject']] ?? []))
            ->when(isset($filters['month']), fn (Builder $query): Builder => $query->where('entry.period', Month::date(Period::parse((string) $filters['month']))))
            ->whereRaw("(entry.subject NOT IN ('imports', 'record_loads') OR (entry.after ->> 'state' IN ('applied', 'undone') AND entry.before ->> 'state' <> entry.after ->> 'state'))")
            ->when(isset($filters['before']), fn (Builder $query): Builder => $query->where('entry.id', '<', $filters['before']))
            ->orderByDesc('entry.id')
            ->select(['entry.id', 'entry.at', 'entry.subject', 'entry.period', 'entry.reason', 'entry.batch', 'kpis.code', 'kpis.name', 'kpis.frequency', 'users.name AS by', 'away.name AS standing_for'])
            // As texts, so that no figure becomes a float on the way.
            ->selectRaw('(SELECT jsonb_object_agg(key, value) FROM jsonb_each_text(entry.before)) AS before')
            ->selectRaw('(SELECT jsonb_object_agg(key, value) FROM jsonb_each_text(entry.after)) AS after')
            ->selectRaw('coalesce(kpi_unit.unit_id, entry.unit_id) AS of_unit');

        $sight = $this->rights->sight($user);
        if ($sight->isWhole()) {
            return $query;
        }
        $units = PgArray::of($sight->units ?? []);
        $owners = PgArray::of($sight->owners);

        // A definition belongs to everybody who has the KPI somewhere; people and settings to whoever administers, or sees all.
        return $query->whereRaw(
            'CASE WHEN entry.subject = ANY(?::text[]) THEN ?::boolean
                WHEN entry.kpi_unit_id IS NOT NULL THEN kpi_unit.unit_id = ANY(?::bigint[]) OR kpi_unit.owner_id = ANY(?::bigint[])
                WHEN entry.unit_id IS NOT NULL THEN entry.unit_id = ANY(?::bigint[])
                ELSE EXISTS (SELECT 1 FROM kpi_unit place WHERE place.kpi_id = entry.kpi_id AND (place.unit_id = ANY(?::bigint[]) OR place.owner_id = ANY(?::bigint[]))) END',
            [PgArray::of([...self::TABLES['person'], ...self::TABLES['settings']]), $this->rights->administers($user), $units, $owners, $units, $units, $owners],
        );
    }

    /** @return array<string, array<int, string>> what identities are called, by the field that holds them */
    private function names(): array
    {
        $units = array_map(fn ($unit): string => $unit->name, $this->organisation->units());
        $kpis = $this->database->table('kpis')->pluck('name', 'id')->all();
        $people = $this->database->table('users')->pluck('name', 'id')->all();

        return [
            'unit_id' => $units, 'parent_id' => $units, 'department_id' => $units, 'driver_id' => $kpis, 'weighted_by_id' => $kpis,
            'owner_id' => $people, 'user_id' => $people, 'substitute_id' => $people,
            'theme_id' => $this->database->table('themes')->pluck('name', 'id')->all(),
            'objective_id' => $this->database->table('objectives')->pluck('name', 'id')->all(),
        ];
    }

    /** @param  array<string, array<int, string>>  $names */
    private function change(stdClass $row, array $names, NumberSetting $setting): Change
    {
        /** @var array<string, string|null> $before */
        $before = $row->before === null ? [] : json_decode($row->before, true);
        /** @var array<string, string|null> $after */
        $after = $row->after === null ? [] : json_decode($row->after, true);
        $fields = [];
        // Of a file people want to know which file, and that it was applied or taken back; not how it was worked at.
        $isFile = in_array($row->subject, ['imports', 'record_loads'], true);
        $before = $isFile ? ['file' => null] : $before;
        $after = $isFile ? array_intersect_key($after, array_flip(['file', 'state', 'brought', 'added', 'gone'])) : $after;
        foreach (self::FIELDS as $field => $words) {
            [$was, $is] = [$before[$field] ?? null, $after[$field] ?? null];
            // Where something was made or removed, what is empty or as always says nothing.
            $isTold = $row->before === null || $row->after === null ? ! in_array($was ?? $is, [null, '', 'false', 'entered'], true) : $was !== $is;
            if ($isTold && ! ($field === 'unit_id' && $row->of_unit !== null && $row->subject !== 'kpi_unit')) {
                $fields[] = new ChangedField($words, $this->said($field, $was, $names, $setting), $this->said($field, $is, $names, $setting));
            }
        }

        return new Change(
            $row->id,
            CarbonImmutable::parse($row->at)->utc()->toIso8601ZuluString(),
            $row->by,
            is_string($row->standing_for) ? $row->standing_for : null,
            self::WORDS[$row->subject] ?? $row->subject,
            match (true) {
                $row->before === null => 'made',
                $row->after === null => 'removed',
                default => 'changed',
            },
            $row->code,
            $row->name,
            $row->of_unit === null ? null : $names['unit_id'][$row->of_unit] ?? null,
            $row->period === null ? null : $this->dates->period($row->period, $row->frequency === null || $row->subject === 'period_states' ? Frequency::Month : Frequency::from($row->frequency))->key(),
            $fields,
            $row->reason,
            $row->batch,
        );
    }

    /** @param  array<string, array<int, string>>  $names */
    private function said(string $field, ?string $value, array $names, NumberSetting $setting): string
    {
        return match (true) {
            $value === null => '',
            isset($names[$field]) => $names[$field][(int) $value] ?? 'what is gone now',
            in_array($field, self::FIGURES, true) => $setting->write($value),
            in_array($field, self::MONTHS, true) => substr($value, 0, 7),
            $value === 'true' => 'yes',
            $value === 'false' => 'no',
            default => $value,
        };
    }
}
