<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Models\KpiUnit;
use App\Models\Note;
use App\Models\User;
use App\Support\Month;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;

/**
 * Writes or removes the note of one KPI in one unit for one month.
 */
final readonly class SaveNote
{
    public function __construct(private Connection $database) {}

    /**
     * @param  string  $text  blank removes the note
     * @param  int  $seen  the version that the person saw; 0 when there was no note
     *
     * @throws Conflict when the note is another one by now; nothing is overwritten
     */
    public function __invoke(KpiUnit $measured, Period $month, string $text, int $seen, User $user): void
    {
        $key = ['kpi_unit_id' => $measured->id, 'period' => Month::date($month)];
        $written = match (true) {
            $seen === 0 && $text === '' => 1,
            $seen === 0 => $this->database->table('notes')->insertOrIgnore([
                ...$key, 'text' => $text, 'version' => 1, 'author_id' => $user->id, 'created_at' => now(), 'updated_at' => now(),
            ]),
            $text === '' => Note::query()->where($key)->where('version', $seen)->delete(),
            default => Note::query()->where($key)->where('version', $seen)
                ->update(['text' => $text, 'version' => $seen + 1, 'author_id' => $user->id]),
        };
        if ($written === 1) {
            return;
        }
        $current = $this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->where($key)->first(['text', 'version', 'users.name as by']);

        throw new Conflict('The note was changed by '.($current->by ?? 'somebody').' in the meantime.', [
            'text' => $current->text ?? '',
            'version' => $current->version ?? 0,
            'by' => $current->by ?? 'somebody',
        ]);
    }
}
