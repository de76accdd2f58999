<?php

declare(strict_types=1);

namespace App\Import;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\KpiFacts;
use App\Figures\KpiStore;
use App\Figures\Organisation;
use App\Models\User;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Tables\BadTable;
use App\Tables\NumberCell;
use App\Tables\Table;
use Illuminate\Database\Connection;
use InvalidArgumentException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use stdClass;

/**
 * Reads a file of figures against what is there, cell by cell: new, changed, the same, or refused and why. Nothing is
 * written but the preview, and what has been read is told as it goes.
 */
final class ReadFile
{
    /** Cells that are held against the database in one go. */
    private const CHUNK = 2_000;

    /** @var array<string, array<int, KpiFacts>> by code and by name in small letters, then by unit */
    private array $kpis = [];

    /** @var array<string, int> units by code and by name in small letters */
    private array $units = [];

    /** @var array<string, int> the line in which a cell was met first */
    private array $met = [];

    /** @var array<string, Period|string> what a text stands for, or why it is no period */
    private array $periods = [];

    private PeriodText $text;

    /** @var array<string, CellText> by number setting */
    private array $texts = [];

    public function __construct(
        private readonly Connection $database,
        private readonly KpiStore $store,
        private readonly Organisation $organisation,
        private readonly EntryRules $rules,
        private readonly PeriodDate $dates,
        private readonly FinancialYear $year,
        private readonly FileRows $rows,
    ) {}

    public function __invoke(int $import, string $path, Mapping $mapping, ?int $unit, User $user): void
    {
        $this->prepare($unit);
        $this->text = new PeriodText($this->year, $user->locale === 'en-US');
        $last = 0;
        $this->database->table('import_cells')->where('import_id', $import)->delete();
        $cells = [];
        try {
            foreach ($this->rows->cells(Table::open($path), $mapping) as $line => $found) {
                array_push($cells, ...$found);
                $last = $line;
                if (count($cells) >= self::CHUNK) {
                    $this->write($import, $cells, $user);
                    $this->progress($import, $line);
                    $cells = [];
                }
            }
            $this->write($import, $cells, $user);
        } catch (BadTable $bad) {
            $this->database->table('imports')->where('id', $import)->update(['state' => 'failed', 'problem' => $bad->getMessage(), 'updated_at' => now()]);

            return;
        }
        $this->database->table('imports')->where('id', $import)->update(['state' => 'ready', 'rows_read' => $last, 'updated_at' => now()]);
    }

    private function prepare(?int $unit): void
    {
        $this->met = $this->periods = $this->kpis = $this->units = [];
        foreach ($this->organisation->units() as $each) {
            $this->units[mb_strtolower($each->code)] = $each->id;
            $this->units[mb_strtolower($each->name)] ??= $each->id;
        }
        $units = $unit === null ? array_keys($this->organisation->units()) : $this->organisation->below($unit);
        foreach ($this->store->inUnits($units, Month::running(), Month::running()) as $kpi) {
            $this->kpis[mb_strtolower($kpi->code)][$kpi->unitId] = $kpi;
            $this->kpis[mb_strtolower($kpi->name)][$kpi->unitId] ??= $kpi;
        }
    }

    private function progress(int $import, int $line): void
    {
        $this->database->table('imports')->where('id', $import)->update(['rows_read' => $line, 'updated_at' => now()]);
    }

    /** @param  list<FileCell>  $cells */
    private function write(int $import, array $cells, User $user): void
    {
        $rows = [];
        $looked = [];
        foreach ($cells as $cell) {
            $row = $this->row($import, $cell, $user);
            $rows[] = $row;
            if ($row['outcome'] === '') {
                $looked[$row['layer'] === 'actual' ? 'readings' : ($row['layer'] === 'note' ? 'notes' : 'targets')][] = $row;
            }
        }
        $current = [];
        foreach ($looked as $table => $some) {
            $current[$table] = $this->current($table, array_column($some, 'kpi_unit_id'), array_column($some, 'period'));
        }
        foreach ($rows as $index => $row) {
            if ($row['outcome'] === '') {
                $table = $row['layer'] === 'actual' ? 'readings' : ($row['layer'] === 'note' ? 'notes' : 'targets');
                $rows[$index] = $this->held($row, $current[$table][$row['kpi_unit_id'].$row['period']] ?? null);
            }
            unset($rows[$index]['has_note']);
        }
        foreach (array_chunk($rows, 500) as $chunk) {
            $this->database->table('import_cells')->insert($chunk);
        }
    }

    /** @return array<string, mixed> a row of the preview; its outcome is blank while it must still be held against the database */
    private function row(int $import, FileCell $cell, User $user): array
    {
        $row = [
            'import_id' => $import, 'line' => $cell->line, 'place' => $cell->place, 'layer' => in_array($cell->layer, ['actual', 'target', 'low', 'note'], true) ? $cell->layer : 'actual',
            'label' => mb_substr(trim("{$cell->kpi} {$cell->unit}"), 0, 160), 'kpi_unit_id' => null, 'period' => null, 'typed' => $cell->typed(), 'was' => '',
            'figure' => null, 'upper' => null, 'colour' => null, 'note' => null, 'outcome' => '', 'reason' => '', 'has_note' => $cell->note !== null,
        ];
        try {
            $kpi = $this->find($cell);
            $row = [...$row, 'kpi_unit_id' => $kpi->id, 'label' => mb_substr("{$kpi->name}, {$this->organisation->unit($kpi->unitId)->name}", 0, 160)];
            $period = $this->period($cell->period, $kpi);
            $row = [...$row, 'period' => $this->dates->date($period)];
            $value = $this->value($cell, $kpi, $period, $user);
        } catch (InvalidArgumentException $problem) {
            return [...$row, 'outcome' => 'refused', 'reason' => mb_substr($problem->getMessage(), 0, 300)];
        }
        $key = "{$kpi->id} {$row['period']} ".($row['layer'] === 'low' ? 'target' : $row['layer']);
        if (isset($this->met[$key])) {
            return [...$row, 'outcome' => 'refused', 'reason' => "It stands in line {$this->met[$key]} already."];
        }
        $this->met[$key] = $cell->line;

        return [
            ...$row,
            'figure' => $value instanceof CellValue ? $value->figure?->__toString() : null,
            'upper' => $value instanceof CellValue ? $value->upper?->__toString() : null,
            'colour' => $value instanceof CellValue ? $value->colour?->value : null,
            'note' => is_string($value) ? $value : null,
        ];
    }

    /** @throws InvalidArgumentException */
    private function find(FileCell $cell): KpiFacts
    {
        if ($cell->kpi === '') {
            throw new InvalidArgumentException('The KPI is missing.');
        }
        $places = $this->kpis[mb_strtolower($cell->kpi)] ?? throw new InvalidArgumentException("There is no KPI '{$cell->kpi}' here.");
        if ($cell->unit === '') {
            return count($places) === 1 ? array_values($places)[0] : throw new InvalidArgumentException("'{$cell->kpi}' is measured in several units: say which.");
        }
        $unit = $this->units[mb_strtolower($cell->unit)] ?? throw new InvalidArgumentException("There is no unit '{$cell->unit}' here.");

        return $places[$unit] ?? throw new InvalidArgumentException("'{$cell->kpi}' is not measured in '{$cell->unit}'.");
    }

    /** @throws InvalidArgumentException */
    private function period(string $text, KpiFacts $kpi): Period
    {
        $frequency = $kpi->measurement->definition->frequency;
        $key = "{$frequency->value} {$text}";
        if (! isset($this->periods[$key])) {
            try {
                $this->periods[$key] = $this->text->read($text, $frequency);
            } catch (InvalidArgumentException $problem) {
                $this->periods[$key] = $problem->getMessage();
            }
        }

        return $this->periods[$key] instanceof Period ? $this->periods[$key] : throw new InvalidArgumentException($this->periods[$key]);
    }

    /** @throws InvalidArgumentException */
    private function value(FileCell $cell, KpiFacts $kpi, Period $period, User $user): CellValue|string
    {
        $isTarget = $cell->layer === 'target' || $cell->layer === 'low';
        $lock = match ($cell->layer) {
            'target', 'low' => $this->rules->targetLock($kpi, $period, $user),
            'actual' => $this->rules->readingLock($kpi, $period, $user),
            'note' => $this->rules->noteLock($kpi, $period, $user),
            default => throw new InvalidArgumentException("'{$cell->layer}' is not a layer: actual, target or note."),
        };
        if ($lock !== '') {
            throw new InvalidArgumentException(EntryRules::sentence($lock, $kpi, $period));
        }
        if ($cell->layer === 'note') {
            $note = $cell->value instanceof NumberCell ? $cell->value->text : trim($cell->value);

            return mb_strlen($note) <= 2000 ? $note : throw new InvalidArgumentException('A note holds up to 2,000 characters.');
        }
        $isBand = $isTarget && $kpi->measurement->definition->polarity === Polarity::Band;
        if ($cell->layer === 'low') {
            if (! $isBand) {
                throw new InvalidArgumentException('Only a band has a low and a high target.');
            }

            return $this->band($this->figure($cell->value, $user), $this->figure($cell->upper ?? '', $user));
        }
        // A number of a spreadsheet has a plain point, whatever the person's setting.
        $text = $this->texts[$cell->value instanceof NumberCell ? 'en-GB' : $user->locale] ??= new CellText(new NumberSetting($cell->value instanceof NumberCell ? 'en-GB' : $user->locale));
        $value = $text->read($kpi->measurement->definition, $cell->value instanceof NumberCell ? $cell->value->text : $cell->value, $isTarget);
        $problem = $isTarget ? '' : $this->rules->outOfBounds($kpi, $value->figure);
        if ($problem !== '') {
            throw new InvalidArgumentException($problem);
        }
        if ($kpi->measurement->definition->kind === Kind::Judged && $value->isBlank()) {
            throw new InvalidArgumentException('The colour is missing.');
        }

        return $value;
    }

    private function figure(string|NumberCell $cell, User $user): CellValue
    {
        return new CellValue($cell instanceof NumberCell ? (new NumberSetting('en-GB'))->read($cell->text) : (new NumberSetting($user->locale))->read($cell));
    }

    /** @throws InvalidArgumentException */
    private function band(CellValue $low, CellValue $high): CellValue
    {
        if ($low->figure === null || $high->figure === null || $high->figure->isLessThan($low->figure)) {
            throw new InvalidArgumentException('A band needs a lower and an upper figure.');
        }

        return new CellValue($low->figure, $high->figure);
    }

    /**
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private function held(array $row, ?stdClass $current): array
    {
        $was = $current->was ?? '';
        $is = match (true) {
            $row['note'] !== null => $row['note'],
            $row['colour'] !== null => $row['colour'],
            default => (string) CellValue::kept($row['figure'])->figure.($row['upper'] === null ? '' : ' '.CellValue::kept($row['upper'])->figure),
        };
        if ($row['colour'] !== null && $row['has_note'] === false && ($current->noted ?? false) !== true) {
            return [...$row, 'outcome' => 'refused', 'reason' => 'A colour needs its reason: put it in the note column.'];
        }

        return [...$row, 'was' => $was, 'outcome' => $was === $is ? 'same' : ($was === '' ? 'new' : 'changed')];
    }

    /**
     * @param  list<int>  $ids
     * @param  list<string>  $dates
     * @return array<string, stdClass> by identity and date
     */
    private function current(string $table, array $ids, array $dates): array
    {
        $was = ImportFigures::WAS[$table];
        $noted = $table === 'readings' ? 'EXISTS (SELECT 1 FROM notes WHERE notes.kpi_unit_id = wanted.kpi_unit_id AND notes.period = wanted.period)' : 'false';
        $current = [];
        foreach ($this->database->select(
            "SELECT wanted.kpi_unit_id, wanted.period, {$was} AS was, {$noted} AS noted
             FROM unnest(?::bigint[], ?::date[]) AS wanted (kpi_unit_id, period) LEFT JOIN {$table} USING (kpi_unit_id, period)",
            [PgArray::of($ids), PgArray::of($dates)],
        ) as $row) {
            $current[$row->kpi_unit_id.$row->period] = $row;
        }

        return $current;
    }
}
