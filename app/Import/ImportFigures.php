<?php

declare(strict_types=1);

namespace App\Import;

use App\Figures\CellValue;
use App\Figures\Closures;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteText;
use App\Figures\Outcome;
use App\Figures\ReadingStage;
use App\Figures\ReadingState;
use App\Figures\WantedCell;
use App\Figures\Written;
use App\Models\Import;
use App\Models\User;
use App\Support\ClosedMonth;
use App\Support\FileStep;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Support\Trail;
use Illuminate\Database\Connection;
use stdClass;

/**
 * Applies an import that was previewed, and undoes one, each as a whole. What somebody changed in the meantime stays.
 */
final class ImportFigures
{
    private const CHUNK = 5_000;

    /** In this order: a colour must find its reason. Undone, it goes the other way round. */
    private const LAYERS = ['note' => Layer::Note, 'actual' => Layer::Reading, 'target' => Layer::Target];

    /** @var array<int, MeasurementFacts> */
    private array $facts = [];

    public function __construct(
        private readonly Connection $database,
        private readonly MeasurementStore $kpis,
        private readonly FigureWriter $writer,
        private readonly Closures $closures,
        private readonly PeriodDate $dates,
        private readonly Trail $trail,
    ) {}

    /** Writes what is new or changed. */
    public function apply(Import $import, User $user): void
    {
        $this->whole($import, FileStep::Apply, $import->batch, '', function () use ($import, $user): void {
            $this->know($this->database->table('import_cells')->where('import_id', $import->id)->whereIn('outcome', ['new', 'changed'])->distinct()->pluck('kpi_unit_id')->all());
            foreach (self::LAYERS as $name => $layer) {
                foreach ($this->cells($import, $name) as $rows) {
                    $this->refuse($import, $rows, $this->write($layer, array_map($this->wanted(...), $rows), $user));
                }
            }
            $this->applyYears($import);
        });
    }

    /** Puts back what stood there before. */
    public function undo(Import $import, User $user): void
    {
        $this->whole($import, FileStep::Undo, '', 'Import undone', function () use ($import, $user): void {
            $this->know($this->database->table('audit_entries')->where('batch', $import->batch)->whereNotNull('kpi_unit_id')->distinct()->pluck('kpi_unit_id')->all());
            foreach (array_reverse(self::LAYERS) as $layer) {
                for ($last = 0; ; $last = end($entries)->id) {
                    $entries = $this->database->table('audit_entries')->where('batch', $import->batch)->where('subject', $layer->value)->where('id', '>', $last)
                        ->orderBy('id')->limit(self::CHUNK)->get(['id', 'kpi_unit_id', 'period', 'before', 'after'])->all();
                    if ($entries === []) {
                        break;
                    }
                    $back = array_filter(array_map(fn (stdClass $entry): ?WantedCell => $this->back($layer, $entry), $entries));
                    $this->write($layer, $back, $user);
                }
            }
            $this->undoYears($import);
        });
    }

    /** @param  array<array-key, mixed>  $measurements */
    private function know(array $measurements): void
    {
        $this->facts = $this->kpis->described(array_values(array_filter($measurements, is_int(...))));
    }

    /** @return iterable<list<stdClass>> cells to be written, some at a time */
    private function cells(Import $import, string $name): iterable
    {
        $layers = $name === 'target' ? ['target', 'low'] : [$name];
        for ($place = [0, '']; ;) {
            $rows = $this->database->table('import_cells')->where('import_id', $import->id)->whereIn('layer', $layers)->whereIn('outcome', ['new', 'changed'])
                ->whereRaw('(line, place) > (?, ?)', $place)->orderBy('line')->orderBy('place')->limit(self::CHUNK)->get()->all();
            if ($rows === []) {
                return;
            }
            $last = end($rows);
            $place = [$last->line, $last->place];
            yield array_values(array_filter($rows, fn (stdClass $row): bool => isset($this->facts[$row->kpi_unit_id])));
        }
    }

    private function wanted(stdClass $row): WantedCell
    {
        $kpi = $this->facts[$row->kpi_unit_id];
        $period = $this->dates->period($row->period, $kpi->measurement->definition->frequency);

        return $row->layer === 'note'
            ? new WantedCell($kpi, $period, new NoteText($row->note), new NoteText($row->was))
            : new WantedCell($kpi, $period, CellValue::kept($row->figure, $row->upper, $row->colour), CellValue::ofText($row->was));
    }

    /**
     * @param  list<stdClass>  $rows
     * @param  array<int, Written>  $written
     */
    private function refuse(Import $import, array $rows, array $written): void
    {
        $refused = array_filter($written, fn (Written $each): bool => $each->outcome === Outcome::Conflict || $each->outcome === Outcome::Refused);
        if ($refused === []) {
            return;
        }
        $of = fn (callable $value): string => PgArray::of(array_map($value, array_keys($refused)));
        $this->database->update(
            "UPDATE import_cells cell SET outcome = 'refused', reason = gone.reason
             FROM unnest(?::int[], ?::text[], ?::text[]) AS gone (line, place, reason) WHERE cell.import_id = ? AND cell.line = gone.line AND cell.place = gone.place",
            [
                $of(fn (int $at): int => $rows[$at]->line),
                $of(fn (int $at): string => $rows[$at]->place),
                $of(fn (int $at): string => $refused[$at]->outcome === Outcome::Conflict ? 'Somebody changed this since the preview.' : $refused[$at]->reason),
                $import->id,
            ],
        );
    }

    /**
     * @param  array<int, WantedCell>  $wanted
     * @return array<int, Written>
     *
     * @throws ClosedMonth where a month was closed in the meantime, which stops all of it: half an import is none
     */
    private function write(Layer $layer, array $wanted, User $user): array
    {
        $written = $this->writer->write($layer, $wanted, $user);
        foreach ($written as $at => $each) {
            if ($each->outcome === Outcome::Refused && $this->closures->locks($wanted[$at]->kpi, $wanted[$at]->period)) {
                throw new ClosedMonth;
            }
        }

        return $written;
    }

    private function back(Layer $layer, stdClass $entry): ?WantedCell
    {
        $kpi = $this->facts[$entry->kpi_unit_id] ?? null;
        if ($kpi === null) {
            return null;
        }
        $period = $this->dates->period($entry->period, $kpi->measurement->definition->frequency);
        $row = fn (?string $json): array => $json === null ? [] : (array) json_decode($json, true, flags: JSON_THROW_ON_ERROR | JSON_BIGINT_AS_STRING);
        [$before, $after] = [$row($this->exact($entry->before)), $row($this->exact($entry->after))];
        $value = fn (array $row): CellValue|NoteText => match ($layer) {
            Layer::Reading => CellValue::kept($row['actual'] ?? null, null, $row['colour'] ?? null),
            Layer::Target => CellValue::kept($row['target'] ?? $row['low'] ?? null, $row['high'] ?? null),
            Layer::Note => new NoteText($row['text'] ?? '', $row['outlook'] ?? '', $row['doing'] ?? ''),
        };

        return new WantedCell($kpi, $period, $value($before), $value($after), $layer === Layer::Reading ? new ReadingState(ReadingStage::from($before['state'] ?? 'entered'), $before['as_of'] ?? null) : null);
    }

    /** Figures of the trail stand as JSON numbers; as text they keep all their digits. */
    private function exact(?string $json): ?string
    {
        return $json === null ? null : preg_replace('/"(actual|target|low|high)": (-?[0-9.]+)/', '"$1": "$2"', $json);
    }

    private function applyYears(Import $import): void
    {
        foreach ($this->database->table('import_cells')->where('import_id', $import->id)->where('layer', 'year')->whereIn('outcome', ['new', 'changed'])->get()->groupBy('period') as $period => $rows) {
            $wanted = [];
            foreach ($rows as $row) {
                $wanted[$row->kpi_unit_id] = [CellValue::kept($row->figure, $row->upper), CellValue::ofText($row->was)];
            }
            $written = $this->writer->writeYears($wanted, (int) substr((string) $period, 0, 4));
            $this->refuse($import, array_values($rows->all()), array_values(array_map(fn (stdClass $row): Written => $written[$row->kpi_unit_id], $rows->all())));
        }
    }

    private function undoYears(Import $import): void
    {
        foreach ($this->database->table('audit_entries')->where('batch', $import->batch)->where('subject', 'year_targets')->get(['kpi_unit_id', 'before', 'after']) as $entry) {
            [$before, $after] = array_map(fn (?string $json): array => $json === null ? [] : (array) json_decode((string) $this->exact($json), true), [$entry->before, $entry->after]);
            $value = fn (array $row): CellValue => CellValue::kept($row['target'] ?? $row['low'] ?? null, $row['high'] ?? null);
            $this->writer->writeYears([$entry->kpi_unit_id => [$value($before), $value($after)]], (int) ($after['year'] ?? $before['year']));
        }
    }

    /** @param  \Closure(): void  $work */
    private function whole(Import $import, FileStep $step, string $batch, string $reason, \Closure $work): void
    {
        try {
            $this->trail->within($batch, $reason, function () use ($import, $step, $work): void {
                // Held to the end: whoever looks for imports that were left sees that this one is not, and a second worker finds it done.
                $mine = $this->database->table('imports')->where('id', $import->id)->where('turn', $import->turn)->where('state', $step->atWork())->lockForUpdate()->exists();
                if (! $mine) {
                    return;
                }
                $work();
                $this->database->table('imports')->where('id', $import->id)->update(['state' => $step->ends(), "{$step->ends()}_at" => now(), 'problem' => '', 'updated_at' => now()]);
            });
        } catch (ClosedMonth) {
            $this->database->table('imports')->where('id', $import->id)->where('turn', $import->turn)->update([
                'state' => $step->backAt(), 'updated_at' => now(),
                'problem' => 'A month that it touches was closed in the meantime, so nothing was changed. Reopen the month, or read the file again.',
            ]);
        }
    }
}
