<?php

declare(strict_types=1);

namespace App\Import;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteText;
use App\Figures\Standing;
use App\Figures\WantedCell;
use App\Models\Import;
use App\Models\User;
use App\Organisation\Organisation;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Tables\BadTable;
use App\Tables\NumberCell;
use App\Tables\Table;
use Illuminate\Database\Connection;
use InvalidArgumentException;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;

/**
 * Reads a file of figures against what is there, cell by cell: new, changed, the same, or refused and why. Nothing is
 * written but the preview, and what has been read is told as it goes.
 */
final class ReadFile
{
    /** Cells that are held against the database in one go. */
    private const CHUNK = 2_000;

    /** @var array<string, array<int, MeasurementFacts>> by code and by name in small letters, then by unit */
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
        private readonly MeasurementStore $store,
        private readonly Organisation $organisation,
        private readonly EntryRules $rules,
        private readonly FigureWriter $writer,
        private readonly PeriodDate $dates,
        private readonly FinancialYear $year,
        private readonly FileRows $rows,
    ) {}

    public function __invoke(Import $import, User $user): void
    {
        $this->prepare($import->unit_id);
        $this->text = new PeriodText($this->year, $user->locale === 'en-US');
        $last = 0;
        $this->database->table('import_cells')->where('import_id', $import->id)->delete();
        $cells = [];
        try {
            $table = Table::open((string) $import->path, $import->sheet);
            foreach ($this->rows->cells($table, Mapping::kept($import->mapping), $import->head) as $line => $found) {
                array_push($cells, ...$found);
                $last = $line;
                if (count($cells) >= self::CHUNK) {
                    $this->write($import, $cells, $line, $user);
                    $cells = [];
                }
            }
            $this->write($import, $cells, $last, $user);
        } catch (BadTable $bad) {
            $this->end($import, ['state' => 'failed', 'problem' => $bad->getMessage()]);

            return;
        }
        $this->end($import, ['state' => 'ready', 'rows_read' => $last]);
    }

    /** @param  array<string, mixed>  $columns */
    private function end(Import $import, array $columns): void
    {
        $this->database->table('imports')->where('id', $import->id)->where('turn', $import->turn)->where('state', 'reading')->update([...$columns, 'updated_at' => now()]);
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

    /**
     * @param  list<FileCell>  $cells
     */
    private function write(Import $import, array $cells, int $line, User $user): void
    {
        $rows = [];
        $wanted = [];
        $years = [];
        foreach ($cells as $index => $cell) {
            [$row, $want] = $this->row($import->id, $cell, $user);
            $rows[$index] = $row;
            if ($want instanceof WantedCell) {
                $wanted[match ($row['layer']) {
                    'actual' => 'readings', 'note' => 'notes', default => 'targets'
                }][$index] = $want;
            } elseif ($want !== null) {
                $years[$index] = $want;
            }
        }
        foreach ($wanted as $layer => $some) {
            foreach ($this->writer->standing(Layer::from($layer), $some) as $index => $standing) {
                $rows[$index] = $this->held($rows[$index], $some[$index], $standing, Layer::from($layer), $cells[$index]->note !== null, $user);
            }
        }
        foreach ($this->years($years) as $index => $stands) {
            $rows[$index] = self::outcome($rows[$index], $stands->text(), $years[$index][2]->equals($stands) ? 'same' : '');
        }
        $this->database->transaction(function () use ($import, $rows, $line): void {
            // Only the worker whose turn it is writes.
            if ($this->database->table('imports')->where('id', $import->id)->where('turn', $import->turn)->update(['rows_read' => $line, 'alive_at' => now()]) === 0) {
                throw new BadTable('It is being read again.');
            }
            foreach (array_chunk($rows, 500) as $chunk) {
                $this->database->table('import_cells')->insert($chunk);
            }
        });
    }

    /**
     * @return array{array<string, mixed>, WantedCell|array{int, int, CellValue}|null} a row of the preview, and what it wants (a measurement, year and value for the target of a year); null where it is refused already
     */
    private function row(int $import, FileCell $cell, User $user): array
    {
        $layer = in_array($cell->layer, ['actual', 'target', 'low', 'note'], true) ? $cell->layer : 'actual';
        $row = [
            'import_id' => $import, 'line' => $cell->line, 'place' => $cell->place, 'layer' => $layer,
            'label' => mb_substr(trim("{$cell->kpi} {$cell->unit}"), 0, 160), 'kpi_unit_id' => null, 'period' => null, 'typed' => $cell->typed(), 'was' => '',
            'figure' => null, 'upper' => null, 'colour' => null, 'note' => null, 'outcome' => '', 'reason' => '',
        ];
        try {
            $kpi = $this->find($cell);
            $row = [...$row, 'kpi_unit_id' => $kpi->id, 'label' => mb_substr("{$kpi->name}, {$this->organisation->unit($kpi->unitId)->name}", 0, 160)];
            $year = $layer === 'target' || $layer === 'low' ? $this->yearOf($cell->period, $kpi) : null;
            $period = $year ?? $this->period($cell->period, $kpi);
            $row = [...$row, 'period' => $this->dates->date($period), 'layer' => $year === null ? $layer : 'year'];
            // What is worked out takes nothing, whatever the file says of it.
            $refusal = $layer === 'actual' && ! $kpi->isTyped() ? $this->rules->refusal(Layer::Reading, $kpi, $period, new CellValue, $user) : '';
            $value = $refusal === '' ? $this->value($cell, $kpi, $user) : throw new InvalidArgumentException($refusal);
        } catch (InvalidArgumentException $problem) {
            return [self::refused($row, $problem->getMessage()), null];
        }
        $key = "{$kpi->id} {$row['period']} ".($row['layer'] === 'low' ? 'target' : $row['layer']);
        if (isset($this->met[$key])) {
            return [self::refused($row, "It stands in line {$this->met[$key]} already."), null];
        }
        $this->met[$key] = $cell->line;
        $row = [
            ...$row,
            'figure' => $value instanceof CellValue ? $value->figure?->__toString() : null,
            'upper' => $value instanceof CellValue ? $value->upper?->__toString() : null,
            'colour' => $value instanceof CellValue ? $value->colour?->value : null,
            'note' => $value instanceof NoteText ? $value->text : null,
        ];
        if ($year !== null && $value instanceof CellValue) {
            $lock = $this->rules->yearTargetLock($kpi, $user);

            return $lock === null ? [$row, [$kpi->id, (int) substr($year->key(), 2), $value]] : [self::refused($row, $lock->refusal($kpi, $period)), null];
        }

        return [$row, new WantedCell($kpi, $period, $value, null)];
    }

    /**
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private static function refused(array $row, string $reason): array
    {
        return [...$row, 'outcome' => 'refused', 'reason' => mb_substr($reason, 0, 300)];
    }

    /**
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private static function outcome(array $row, string $was, string $known): array
    {
        return [...$row, 'was' => $was, 'outcome' => $known !== '' ? $known : ($was === '' ? 'new' : 'changed')];
    }

    /** The year that a target is set for as a whole; null where the text is a period of the KPI itself. */
    private function yearOf(string $text, MeasurementFacts $kpi): ?Period
    {
        if ($kpi->measurement->definition->frequency === Frequency::Year) {
            return null;
        }
        try {
            return $this->text->read($text, Frequency::Year, true);
        } catch (InvalidArgumentException) {
            return null;
        }
    }

    /**
     * @param  array<int, array{int, int, CellValue}>  $wanted
     * @return array<int, CellValue> what stands
     */
    private function years(array $wanted): array
    {
        $standing = $this->writer->standingYears(array_column($wanted, 0));

        return array_map(fn (array $want): CellValue => $standing["{$want[0]} {$want[1]}"] ?? new CellValue, $wanted);
    }

    /** @throws InvalidArgumentException */
    private function find(FileCell $cell): MeasurementFacts
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
    private function period(string $text, MeasurementFacts $kpi): Period
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
    private function value(FileCell $cell, MeasurementFacts $kpi, User $user): CellValue|NoteText
    {
        $isTarget = $cell->layer === 'target' || $cell->layer === 'low';
        if (! $isTarget && $cell->layer !== 'actual' && $cell->layer !== 'note') {
            throw new InvalidArgumentException("'{$cell->layer}' is not a layer: actual, target or note.");
        }
        if ($cell->layer === 'note') {
            $note = $cell->value instanceof NumberCell ? $cell->value->text : trim($cell->value);

            return mb_strlen($note) <= 2000 ? new NoteText($note) : throw new InvalidArgumentException('A note holds up to 2,000 characters.');
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
        if ($low->figure === null || $high->figure === null) {
            throw new InvalidArgumentException('A band needs a lower and an upper figure.');
        }
        if ($high->figure->isLessThan($low->figure)) {
            throw new InvalidArgumentException("The upper figure must be {$low->figure} or more.");
        }

        return new CellValue($low->figure, $high->figure);
    }

    /**
     * What is there already is the same, also where it could not be written.
     *
     * @param  array<string, mixed>  $row
     * @param  bool  $bringsNote  the row has a note of its own
     * @return array<string, mixed>
     */
    private function held(array $row, WantedCell $wanted, Standing $standing, Layer $layer, bool $bringsNote, User $user): array
    {
        $was = $standing->value instanceof NoteText ? $standing->value->text : $standing->value->text();
        if ($standing->holds($wanted->value) && $this->rules->isMine($wanted->kpi, $user)) {
            return self::outcome($row, $was, 'same');
        }
        $refusal = $this->rules->refusal($layer, $wanted->kpi, $wanted->period, $wanted->value, $user);
        if ($refusal === '' && $wanted->value instanceof CellValue && Owed::colourLacksReason($wanted->value->colour, $bringsNote || $standing->isNoted)) {
            $refusal = 'A colour needs its reason: put it in the note column.';
        }

        return $refusal === '' ? self::outcome($row, $was, '') : self::refused($row, $refusal);
    }
}
