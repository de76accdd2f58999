<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use InvalidArgumentException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Records\Zone;
use stdClass;

/**
 * Reads a workbook from its JSON text, and says everything that is wrong with one that cannot be used.
 */
final readonly class WorkbookReader
{
    public const SCHEMA = 'urn:kybernet:workbook:1';

    /** The arrays of a workbook in the order in which they build on each other, and what the schema calls their items. */
    private const PARTS = [
        'people' => 'person', 'units' => 'unit', 'objectives' => 'objective', 'themes' => 'name', 'recordSets' => 'recordSet', 'kpis' => 'kpi',
        'readings' => 'reading', 'targets' => 'target', 'calls' => 'call', 'actions' => 'action', 'closings' => 'closing',
    ];

    private SchemaCheck $schema;

    /** @param  object  $schema  the decoded JSON Schema of a workbook */
    public function __construct(object $schema)
    {
        $this->schema = new SchemaCheck($schema, self::SCHEMA);
    }

    /** @throws BadWorkbook */
    public function read(string $json): Workbook
    {
        $problems = new Problems;
        try {
            $workbook = $this->build(new JsonText($json), $problems);
        } catch (InvalidArgumentException $error) {
            throw new BadWorkbook([new Problem('/', 'not-json', $error->getMessage())]);
        }
        $found = $problems->all();
        if ($found !== []) {
            throw new BadWorkbook($found);
        }

        return $workbook;
    }

    private function build(JsonText $text, Problems $problems): Workbook
    {
        [$members, $twice] = $text->members();
        foreach ($twice as $name) {
            $problems->add("/{$name}", 'duplicate', "The member '{$name}' stands twice.");
        }
        $head = new stdClass;
        foreach ($members as $name => $at) {
            $head->{$name} = isset(self::PARTS[$name]) && $text->isArray($at) ? [] : $text->value($at);
        }
        $this->schema->check($head, '', '', $problems);

        $month = is_object($head->calendar ?? null) ? $head->calendar->yearStartMonth ?? null : null;
        $year = new FinancialYear(is_int($month) && $month >= 1 && $month <= 12 ? $month : 1);
        $units = new UnitsReader;
        $sets = new RecordSetsReader($units);
        $kpis = new KpisReader($units, $sets);
        $figures = new FiguresReader($kpis, $year);
        $people = [];
        $objectives = [];
        $themes = [];
        $closings = [];
        foreach (self::PARTS as $part => $definition) {
            foreach (isset($members[$part]) && $text->isArray($members[$part]) ? $text->items($members[$part]) : [] as $index => $item) {
                $value = $text->decode($item, true);
                if (is_array($value) && ($part === 'readings' ? $figures->takePlainReading($value) : $part === 'targets' && $figures->takePlainTarget($value))) {
                    continue;
                }
                $pointer = "/{$part}/{$index}";
                $this->schema->check($text->decode($item), $definition, $pointer, $problems);
                $row = new Row(is_array($value) ? $value : [], $pointer, $problems);
                match ($part) {
                    'people' => $people[] = new PersonEntry($row->text('email') ?? '', $row->text('name') ?? '', $row->text('role') ?? '', $row->text('unit'), $row->text('locale'), $row->flag('blocked'), array_values(array_map(fn (Row $more): array => ['role' => $more->text('role') ?? '', 'unit' => $more->text('unit')], $row->rows('further')))),
                    'units' => $units->read($row),
                    'objectives' => $objectives[$row->text('code') ?? ''] = $row->text('name') ?? '',
                    'themes' => $themes[] = is_string($value) ? $value : '',
                    'recordSets' => $sets->read($row),
                    'kpis' => $kpis->read($row),
                    'readings' => $figures->reading($row),
                    'targets' => $figures->target($row),
                    'calls' => $figures->call($row),
                    'actions' => $figures->action($row),
                    'closings' => self::closing($row, $units, $closings),
                };
            }
            if ($part === 'units') {
                $units->all();
            }
        }
        $this->checkReferences($kpis->all(), $people, $objectives, $themes, $units, $problems);

        return new Workbook($year, $people, $units->all(), $objectives, $themes, array_map(self::entry(...), array_values($kpis->all())), $closings, $sets->all(), self::zone($head, $problems));
    }

    private static function zone(stdClass $head, Problems $problems): string
    {
        $name = is_object($head->calendar ?? null) ? $head->calendar->timeZone ?? null : null;
        try {
            return is_string($name) ? (new Zone($name))->name : 'UTC';
        } catch (InvalidArgumentException $problem) {
            $problems->addUnlessTold('/calendar/timeZone', 'malformed', $problem->getMessage());

            return 'UTC';
        }
    }

    /** @param  array<string, list<string>>  $closings */
    private static function closing(Row $row, UnitsReader $units, array &$closings): void
    {
        $unit = $row->text('unit');
        $month = $row->month('period');
        if ($unit !== null && ! $units->knows($unit)) {
            $row->refuse('unit', 'unknown-unit', "There is no unit '{$unit}'.");
        }
        if ($unit !== null && $month !== null) {
            if (in_array($month->key(), $closings[$unit] ?? [], true)) {
                $row->refuse('period', 'duplicate', "'{$unit}' is closed in {$month->key()} already.");
            }
            $closings[$unit][] = $month->key();
        }
    }

    /**
     * @param  array<string, KpiDraft>  $kpis
     * @param  list<PersonEntry>  $people
     * @param  array<string, string>  $objectives
     * @param  list<string>  $themes
     */
    private function checkReferences(array $kpis, array $people, array $objectives, array $themes, UnitsReader $units, Problems $problems): void
    {
        $emails = [];
        foreach ($people as $index => $person) {
            if (isset($emails[$person->email])) {
                $problems->add("/people/{$index}/email", 'duplicate', "'{$person->email}' stands here already.");
            }
            $emails[$person->email] = true;
            foreach ($person->roles() as $at => ['unit' => $unit]) {
                if ($unit !== null && ! $units->knows($unit)) {
                    $problems->add("/people/{$index}/".($at === 0 ? '' : 'further/'.($at - 1).'/').'unit', 'unknown-unit', "There is no unit '{$unit}'.");
                }
            }
        }
        foreach ($themes as $index => $theme) {
            if (array_search($theme, $themes, true) !== $index) {
                $problems->add("/themes/{$index}", 'duplicate', "The theme '{$theme}' stands here already.");
            }
        }
        foreach ($kpis as $kpi) {
            $objective = $kpi->row->text('objective');
            $theme = $kpi->row->text('theme');
            if ($objective !== null && ! isset($objectives[$objective])) {
                $kpi->row->refuse('objective', 'unknown-objective', "There is no objective '{$objective}'.");
            }
            if ($theme !== null && $themes !== [] && ! in_array($theme, $themes, true)) {
                $kpi->row->refuse('theme', 'unknown-theme', "There is no theme '{$theme}'.");
            }
        }
    }

    private static function entry(KpiDraft $kpi): KpiEntry
    {
        $texts = $kpi->row->row('texts');

        return new KpiEntry(
            $kpi->code,
            $kpi->row->text('name') ?? '',
            $kpi->row->text('purpose'),
            $kpi->row->text('level'),
            $kpi->row->text('scale') === 'auto',
            $kpi->row->text('department'),
            $kpi->row->text('theme'),
            $kpi->row->text('objective'),
            array_values($kpi->row->texts('drivers')),
            array_filter(['green' => $texts?->text('green'), 'amber' => $texts?->text('amber'), 'red' => $texts?->text('red')], fn (?string $text): bool => $text !== null),
            $kpi->definition,
            array_map(fn (MeasurementDraft $unit): MeasurementEntry => self::unit($kpi, $unit), array_values($kpi->units)),
            new Sourcing(
                $kpi->row->text('source'),
                $kpi->row->integer('dueDay'),
                $kpi->row->flag('dataAvailable'),
                $kpi->row->flag('definitionAgreed'),
                $kpi->row->flag('noteRequired'),
            ),
            $kpi->splits,
            $kpi->parts,
        );
    }

    private static function unit(KpiDraft $kpi, MeasurementDraft $unit): MeasurementEntry
    {
        [$targets, $yearTargets] = self::byYear($unit->targets, $kpi->definition->frequency);
        [$upperTargets, $upperYearTargets] = self::byYear($unit->upperTargets, $kpi->definition->frequency);

        return new MeasurementEntry(new KeptMeasurement(
            $kpi->code,
            $unit->unit,
            $kpi->definition,
            new Series($unit->readings),
            new Series($targets),
            new Series($upperTargets),
            $yearTargets,
            $upperYearTargets,
            $unit->isGathered,
            $unit->tenure,
            $unit->ownRules,
            $unit->baseline,
            $unit->calls,
        ), $unit->weight, $unit->position, $unit->owner, $unit->notes, $unit->submitted, $unit->asOf, $unit->actions, array_map(fn (array $figures): Series => new Series($figures), $unit->parts));
    }

    /**
     * @param  array<string, string>  $targets
     * @return array{array<string, string>, array<string, string>} those of periods, and those of whole years
     */
    private static function byYear(array $targets, Frequency $frequency): array
    {
        $years = [];
        foreach ($targets as $period => $target) {
            if (strlen($period) === strlen('FY2026') && $period[0] === 'F') {
                $years[$period] = $target;
            }
        }

        // A KPI that is measured once a year has its periods and its years in one.
        return $years === [] || $frequency === Frequency::Year ? [$targets, $years] : [array_diff_key($targets, $years), $years];
    }
}
