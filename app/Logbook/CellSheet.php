<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementCodes;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteText;
use App\Figures\Outcome;
use App\Figures\WantedCell;
use App\Figures\Written;
use App\Models\User;
use App\Organisation\Rights;
use App\Support\NumberSetting;
use App\Tables\NumberCell;
use App\Tables\SheetOutcome;
use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * Lines of a sheet that name a KPI, a unit and a period, written as the one writer of figures writes them.
 */
final readonly class CellSheet
{
    /** Cells in one statement. */
    private const BATCH = 2_000;

    public function __construct(private MeasurementCodes $codes, private MeasurementStore $kpis, private FigureWriter $writer, private EntryRules $rules, private Rights $rights) {}

    /**
     * @param  array<int, array<string, string|NumberCell>>  $rows
     * @param  list<string>  $columns  of the figure, and of the upper end of a band
     * @param  string  $note  the column of a reason; blank where there is none
     */
    public function take(array $rows, Layer $layer, array $columns, string $note, User $user): SheetOutcome
    {
        $outcome = new SheetOutcome;
        $text = fn (array $row, string $column): string => trim(($row[$column] ?? '') instanceof NumberCell ? $row[$column]->text : (is_string($row[$column] ?? '') ? $row[$column] ?? '' : ''));
        $places = $this->codes->find(array_values(array_map(fn (array $row): array => [$text($row, 'KPI'), $text($row, 'Unit')], $rows)));
        $facts = $this->kpis->described(array_values(array_unique(array_map(fn (object $place): int => $place->id, array_filter($places, fn (object $place): bool => $this->rights->maySee($user, $place->unit_id, $place->owner_id))))));
        $setting = new NumberSetting($user->locale);
        $reader = new CellText($setting);
        [$wanted, $notes, $years, $lines] = [[], [], [], []];
        foreach ($rows as $line => $row) {
            try {
                $place = $places["{$text($row, 'KPI')} {$text($row, 'Unit')}"] ?? null;
                $kpi = $place === null ? null : $facts[$place->id] ?? null;
                if ($kpi === null) {
                    throw new InvalidArgumentException("There is no KPI {$text($row, 'KPI')} in {$text($row, 'Unit')}.");
                }
                $year = $layer === Layer::Target ? self::year($text($row, 'Period'), $kpi) : null;
                $period = $year ?? self::period($text($row, 'Period'), $kpi);
                if (isset($lines["{$kpi->id} {$period->key()}"])) {
                    throw new InvalidArgumentException('This figure stands in the list twice.');
                }
                $lines["{$kpi->id} {$period->key()}"] = $line;
                $lock = $year === null ? null : $this->rules->yearTargetLock($kpi, $user);
                if ($lock !== null) {
                    throw new InvalidArgumentException($lock->refusal($kpi, $period));
                }
                $value = self::value($row, $columns, $kpi, $reader, $setting, $layer);
                if ($year !== null) {
                    $years[(int) substr($year->key(), 2)][$kpi->id] = [$line, $value];

                    continue;
                }
                $wanted[$line] = new WantedCell($kpi, $period, $value, null);
                if ($note !== '' && $text($row, $note) !== '') {
                    $notes[$line] = new WantedCell($kpi, $period, new NoteText(mb_substr($text($row, $note), 0, 4000)), null);
                }
            } catch (InvalidArgumentException $problem) {
                $outcome->count('refused', $line, $problem->getMessage());
            }
        }
        // A colour needs its reason, so reasons go first.
        foreach (array_chunk($notes, self::BATCH, true) as $batch) {
            foreach ($this->writer->write(Layer::Note, $batch, $user) as $line => $written) {
                if ($written->outcome === Outcome::Refused) {
                    $outcome->count('refused', $line, $written->reason);
                }
            }
        }
        foreach (array_chunk($wanted, self::BATCH, true) as $batch) {
            foreach ($this->writer->write($layer, $batch, $user) as $line => $written) {
                self::count($outcome, $line, $written);
            }
        }
        foreach ($years as $year => $cells) {
            foreach ($this->writer->writeYears(array_map(fn (array $cell): array => [$cell[1], null], $cells), $year) as $id => $written) {
                self::count($outcome, $cells[$id][0], $written);
            }
        }

        return $outcome;
    }

    private static function count(SheetOutcome $outcome, int $line, Written $written): void
    {
        $outcome->count(match ($written->outcome) {
            Outcome::Same => 'same',
            Outcome::Refused, Outcome::Conflict => 'refused',
            Outcome::Saved => $written->standing->value instanceof CellValue && $written->standing->value->isBlank() ? 'new' : 'changed',
        }, $line, $written->reason);
    }

    /** The year for which a target is set as a whole; null where it is a period of the KPI itself. */
    private static function year(string $text, MeasurementFacts $kpi): ?Period
    {
        return $kpi->measurement->definition->frequency !== Frequency::Year && preg_match('/\AFY\d{4}\z/', $text) === 1 ? Period::parse($text, Frequency::Year) : null;
    }

    private static function period(string $text, MeasurementFacts $kpi): Period
    {
        // A spreadsheet makes days of months.
        return Period::parse(preg_replace('/\A(\d{4}-\d\d)-\d\d.*\z/', '$1', $text) ?? $text, $kpi->measurement->definition->frequency);
    }

    /**
     * @param  array<string, string|NumberCell>  $row
     * @param  list<string>  $columns
     */
    private static function value(array $row, array $columns, MeasurementFacts $kpi, CellText $reader, NumberSetting $setting, Layer $layer): CellValue
    {
        $figure = function (string $column) use ($row, $setting): ?BigDecimal {
            $cell = $row[$column] ?? '';

            return $cell instanceof NumberCell ? BigDecimal::of($cell->text) : $setting->read(trim($cell));
        };
        $first = $row[$columns[0]] ?? '';
        if (count($columns) > 1 && ($row[$columns[1]] ?? '') !== '') {
            [$low, $high] = [$figure($columns[0]), $figure($columns[1])];

            return $low === null || $high === null || $high->isLessThan($low) ? throw new InvalidArgumentException('A band goes from a lower to an upper figure.') : new CellValue($low, $high);
        }

        return $first instanceof NumberCell ? new CellValue(BigDecimal::of($first->text)) : $reader->read($kpi->measurement->definition, $first, $layer === Layer::Target);
    }
}
