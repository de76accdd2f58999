<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementStore;
use App\Figures\NoteText;
use App\Figures\Outcome;
use App\Figures\WantedCell;
use App\Figures\Written;
use App\Logbook\Views\CellOutcome;
use App\Models\User;
use App\Support\NumberSetting;
use App\Support\Trail;
use Illuminate\Support\Str;
use InvalidArgumentException;

/**
 * Saves a block of cells of the year grid: readings or targets. Good cells are saved, bad ones come back with their
 * reason, and a cell that somebody else has changed in the meantime is not touched.
 */
final readonly class SaveCells
{
    public function __construct(private MeasurementStore $kpis, private CellReader $reader, private FigureWriter $writer, private Trail $trail) {}

    /**
     * @param  list<TypedCell>  $cells
     * @return list<CellOutcome> one a cell, in the same order
     */
    public function __invoke(array $cells, Layer $layer, User $user): array
    {
        $facts = $this->kpis->described(array_values(array_unique(array_map(fn (TypedCell $cell): int => $cell->measurement, $cells))));
        $outcomes = [];
        $wanted = [];
        $places = [];
        foreach ($cells as $index => $cell) {
            try {
                [$kpi, $period, $value] = $this->reader->read($cell, $facts[$cell->measurement] ?? null, $layer, $user);
                if (isset($places["{$kpi->id} {$period->key()}"])) {
                    throw new InvalidArgumentException('This cell stands in the block twice.');
                }
                $places["{$kpi->id} {$period->key()}"] = true;
                $wanted[$index] = new WantedCell($kpi, $period, $value, $this->reader->seen($cell, $kpi, $layer));
            } catch (InvalidArgumentException $problem) {
                $outcomes[$index] = CellOutcome::refused($cell->measurement, $cell->period, $cell->typed, $problem->getMessage());
            }
        }
        $text = new CellText(new NumberSetting($user->locale));
        foreach ($this->trail->within((string) Str::uuid(), '', fn (): array => $this->save($layer, $wanted, $cells, $user)) as $index => $written) {
            $outcomes[$index] = $this->outcome($cells[$index], $wanted[$index], $written, $text);
        }
        ksort($outcomes);

        return array_values($outcomes);
    }

    /**
     * @param  array<int, WantedCell>  $wanted
     * @param  list<TypedCell>  $cells
     * @return array<int, Written>
     */
    private function save(Layer $layer, array $wanted, array $cells, User $user): array
    {
        $reasons = $layer !== Layer::Reading ? [] : array_filter($wanted, fn (WantedCell $cell, int $index): bool => $cells[$index]->reason !== '' && $cell->value instanceof CellValue && $cell->value->colour !== null, ARRAY_FILTER_USE_BOTH);
        // A note that somebody has written in the meantime stays: it is a reason too.
        $this->writer->write(Layer::Note, array_map(
            fn (WantedCell $cell, int $index): WantedCell => new WantedCell($cell->kpi, $cell->period, new NoteText($cells[$index]->reason), new NoteText),
            $reasons,
            array_keys($reasons),
        ), $user);

        return $this->writer->write($layer, $wanted, $user);
    }

    private function outcome(TypedCell $cell, WantedCell $wanted, Written $written, CellText $text): CellOutcome
    {
        $write = fn (mixed $value): string => $value instanceof CellValue ? $text->write($wanted->kpi->measurement->definition, $wanted->kpi->scaled, $value) : '';
        $stands = $write($written->standing->value);

        return match ($written->outcome) {
            Outcome::Saved => CellOutcome::saved($cell->measurement, $cell->period, $write($wanted->value)),
            Outcome::Same => CellOutcome::same($cell->measurement, $cell->period, $stands),
            Outcome::Conflict => CellOutcome::conflict($cell->measurement, $cell->period, $stands, $written->standing->by ?? 'Somebody'),
            Outcome::Refused => CellOutcome::refused($cell->measurement, $cell->period, $cell->typed, $written->reason),
        };
    }
}
