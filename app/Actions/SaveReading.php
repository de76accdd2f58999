<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\KpiFacts;
use App\Models\KpiUnit;
use App\Models\Reading;
use App\Models\User;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;

/**
 * Enters, changes or takes back the reading of one KPI in one unit for one period.
 */
final readonly class SaveReading
{
    public function __construct(
        private Connection $database,
        private EntryRules $rules,
        private SaveNote $saveNote,
        private PeriodDate $dates,
    ) {}

    /**
     * @param  int  $seen  the version that the person saw; 0 when there was no reading
     * @param  NoteDraft|null  $note  the reason that a colour is given with
     *
     * @throws ValidationException when the KPI takes no such value for the period
     * @throws Conflict when the reading, or the note, is another one by now; nothing is overwritten
     */
    public function __invoke(KpiUnit $measured, KpiFacts $kpi, Period $period, CellValue $value, int $seen, ?NoteDraft $note, User $user): void
    {
        $this->check($kpi, $period, $value, $user);
        $this->database->transaction(function () use ($measured, $kpi, $period, $value, $seen, $note, $user): void {
            if ($note !== null) {
                ($this->saveNote)($measured, $kpi, $period, $note, $user);
            }
            $key = ['kpi_unit_id' => $measured->id, 'period' => $this->dates->date($period)];
            if ($value->colour !== null && ! $this->database->table('notes')->where($key)->exists()) {
                throw ValidationException::withMessages(['note' => 'A colour needs its reason.']);
            }
            $this->write($key, $kpi, $period, $value, $seen, $user);
        });
    }

    /** @param  array{kpi_unit_id: int, period: string}  $key */
    private function write(array $key, KpiFacts $kpi, Period $period, CellValue $value, int $seen, User $user): void
    {
        $columns = [
            'actual' => $value->figure?->__toString(),
            'colour' => $value->colour?->value,
            'state' => 'entered',
            'as_of' => $value->isBlank() ? null : $this->rules->asOf($period),
            'entered_by' => $user->id,
            'updated_at' => now(),
        ];
        $written = $seen === 0
            ? $this->database->table('readings')->insertOrIgnore([...$key, ...$columns, 'version' => 1, 'created_at' => now()])
            : Reading::query()->where($key)->where('version', $seen)->update([...$columns, 'version' => $seen + 1]);
        if ($written === 1) {
            return;
        }
        $current = $this->database->table('readings')->leftJoin('users', 'users.id', '=', 'readings.entered_by')
            ->where($key)->first(['actual', 'colour', 'version', 'users.name as by']);
        $typed = (new CellText(new NumberSetting($user->locale)))->write($kpi->measurement->definition, $kpi->scaled, CellValue::kept($current?->actual, null, $current?->colour));
        $by = $current->by ?? 'Somebody';

        throw new Conflict($typed === '' ? "{$by} took this reading back in the meantime." : "{$by} entered {$typed} in the meantime.", [
            'text' => $typed,
            'version' => $current->version ?? 0,
            'by' => $by,
        ]);
    }

    /** @throws ValidationException */
    private function check(KpiFacts $kpi, Period $period, CellValue $value, User $user): void
    {
        $lock = $this->rules->readingLock($kpi, $period, $user);
        $problem = $lock === '' ? $this->rules->outOfBounds($kpi, $value->figure) : EntryRules::sentence($lock, $kpi, $period);
        if ($problem !== '') {
            throw ValidationException::withMessages(['typed' => $problem]);
        }
    }
}
