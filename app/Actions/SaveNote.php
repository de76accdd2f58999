<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Figures\Closures;
use App\Figures\KpiFacts;
use App\Models\KpiUnit;
use App\Models\Note;
use App\Models\User;
use App\Support\PeriodDate;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;

/**
 * Writes or removes the note of one KPI in one unit for one period.
 */
final readonly class SaveNote
{
    public function __construct(private Connection $database, private Closures $closures, private PeriodDate $dates) {}

    /**
     * @throws ValidationException when the month is closed, or a colour would lose its reason
     * @throws Conflict when the note is another one by now; nothing is overwritten
     */
    public function __invoke(KpiUnit $measured, KpiFacts $kpi, Period $period, NoteDraft $draft, User $user): void
    {
        if ($this->closures->holds($measured->unit_id, $period)) {
            throw ValidationException::withMessages(['text' => ucfirst($period->words()).' is closed. Its notes can change only after it is reopened.']);
        }
        $key = ['kpi_unit_id' => $measured->id, 'period' => $this->dates->date($period)];
        if ($draft->text === '' && $kpi->measurement->definition->kind === Kind::Judged
            && $this->database->table('readings')->where($key)->whereNotNull('colour')->exists()) {
            throw ValidationException::withMessages(['text' => 'A colour needs its reason: take the colour back first.']);
        }
        $columns = ['text' => $draft->text, 'outlook' => $draft->outlook, 'doing' => $draft->doing, 'author_id' => $user->id, 'updated_at' => now()];
        $written = match (true) {
            $draft->version === 0 && $draft->isBlank() => 1,
            $draft->version === 0 => $this->database->table('notes')->insertOrIgnore([...$key, ...$columns, 'version' => 1, 'created_at' => now()]),
            $draft->isBlank() => Note::query()->where($key)->where('version', $draft->version)->delete(),
            default => Note::query()->where($key)->where('version', $draft->version)->update([...$columns, 'version' => $draft->version + 1]),
        };
        if ($written === 1) {
            return;
        }
        $current = $this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->where($key)->first(['text', 'outlook', 'doing', 'version', 'users.name as by']);

        throw new Conflict('The note was changed by '.($current->by ?? 'somebody').' in the meantime.', [
            'text' => $current->text ?? '',
            'outlook' => $current->outlook ?? '',
            'doing' => $current->doing ?? '',
            'version' => $current->version ?? 0,
            'by' => $current->by ?? 'somebody',
        ]);
    }
}
