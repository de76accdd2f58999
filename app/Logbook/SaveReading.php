<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Figures\NoteText;
use App\Figures\Outcome;
use App\Figures\Standing;
use App\Figures\WantedCell;
use App\Models\User;
use App\Support\Conflict;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;

/**
 * Enters, changes or takes back the reading of one KPI in one unit for one period.
 */
final readonly class SaveReading
{
    public function __construct(private Connection $database, private FigureWriter $writer, private SaveNote $saveNote) {}

    /**
     * @param  int  $seen  the version that the person saw; 0 when there was no reading
     * @param  array<string, BigDecimal>|null  $parts  of which the value is the sum; null where only the sum is known
     * @param  array{NoteText, int}|null  $note  the reason that a colour is given with, and the version of it that was seen
     *
     * @throws ValidationException when the KPI takes no such value for the period
     * @throws Conflict when the reading, or the note, is another one by now; nothing is overwritten
     */
    public function __invoke(MeasurementFacts $kpi, Period $period, CellValue $value, ?array $parts, int $seen, ?array $note, User $user): void
    {
        $this->database->transaction(function () use ($kpi, $period, $value, $parts, $seen, $note, $user): void {
            if ($note !== null) {
                ($this->saveNote)($kpi, $period, $note[0], $note[1], $user);
            }
            $written = $this->writer->write(Layer::Reading, [new WantedCell($kpi, $period, $value, $seen, isOver: $kpi->measurement->definition->kind === Kind::Records, parts: $parts)], $user)[0];
            if ($written->outcome === Outcome::Refused) {
                throw ValidationException::withMessages([($value->colour === null && $kpi->measurement->definition->kind !== Kind::Records) || $written->standing->isNoted || $value->isBlank() ? 'typed' : 'note' => $written->reason]);
            }
            if ($written->outcome === Outcome::Conflict) {
                throw self::conflict($kpi, $written->standing, $user);
            }
        });
    }

    private static function conflict(MeasurementFacts $kpi, Standing $standing, User $user): Conflict
    {
        $stands = $standing->value instanceof CellValue ? $standing->value : new CellValue;
        $typed = (new CellText(new NumberSetting($user->locale)))->write($kpi->measurement->definition, $kpi->scaled, $stands);
        $by = $standing->by ?? 'Somebody';

        return new Conflict($typed === '' ? "{$by} took this reading back in the meantime." : "{$by} entered {$typed} in the meantime.", [
            'text' => $typed,
            'version' => $standing->version,
            'by' => $by,
            ...($kpi->parts === [] ? [] : ['parts' => (object) array_map(fn (BigDecimal $part): string => (new CellText(new NumberSetting($user->locale)))->write($kpi->measurement->definition, $kpi->scaled, new CellValue($part)), $standing->parts)]),
        ]);
    }
}
