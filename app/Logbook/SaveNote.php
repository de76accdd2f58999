<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Figures\NoteText;
use App\Figures\Outcome;
use App\Figures\Standing;
use App\Figures\WantedCell;
use App\Models\User;
use App\Support\Conflict;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;

/**
 * Writes or removes the note of one KPI in one unit for one period.
 */
final readonly class SaveNote
{
    public function __construct(private Connection $database, private FigureWriter $writer) {}

    /**
     * @param  int  $seen  the version that the person saw; 0 when there was none
     *
     * @throws ValidationException when the month is closed, or a colour would lose its reason
     * @throws Conflict when the note is another one by now; nothing is overwritten
     */
    public function __invoke(MeasurementFacts $kpi, Period $period, NoteText $text, int $seen, User $user): void
    {
        $written = $this->database->transaction(fn () => $this->writer->write(Layer::Note, [new WantedCell($kpi, $period, $text, $seen)], $user)[0]);
        if ($written->outcome === Outcome::Refused) {
            throw ValidationException::withMessages(['text' => $written->reason]);
        }
        if ($written->outcome === Outcome::Conflict) {
            throw self::conflict($written->standing);
        }
    }

    private static function conflict(Standing $standing): Conflict
    {
        $stands = $standing->value instanceof NoteText ? $standing->value : new NoteText;
        $by = $standing->by ?? 'somebody';

        return new Conflict("The note was changed by {$by} in the meantime.", [
            'text' => $stands->text,
            'outlook' => $stands->outlook ?? '',
            'doing' => $stands->doing ?? '',
            'version' => $standing->version,
            'by' => $by,
        ]);
    }
}
