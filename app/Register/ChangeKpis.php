<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\MeasurementLock;
use App\Models\Measurement;
use App\Models\Theme;
use App\Organisation\Organisation;
use App\Support\Month;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use stdClass;

/**
 * Changes common fields of many KPIs at once, retires them, or moves them to another unit from a month on. All of it or
 * nothing; history stays where it was measured.
 */
final readonly class ChangeKpis
{
    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private ClosedHistory $history,
        private MeasurementLock $lock,
        private Trail $trail,
    ) {}

    /**
     * @param  list<string>  $codes
     * @param  array<string, mixed>  $changes  columns, and theme, objective, department and owner as they were chosen
     * @param  Period|null  $until  the last month in which they are measured
     * @param  array{string, string, Period}|null  $move  from which unit to which, and the first month there
     */
    public function __invoke(array $codes, array $changes, ?Period $until, ?array $move): void
    {
        $ids = array_values($this->database->table('kpis')->whereIn('code', $codes)->pluck('id')->all());
        $this->trail->within((string) Str::uuid(), '', function () use ($ids, $changes, $until, $move): void {
            $this->lock->holdKpis($ids);
            $this->history->keep($ids, 'until', function () use ($ids, $changes, $until, $move): null {
                $this->changeFields($ids, $changes);
                if ($until !== null) {
                    $this->retire($ids, $until);
                }
                if ($move !== null) {
                    $this->move($ids, ...$move);
                }

                return null;
            });
        });
    }

    /**
     * @param  list<int>  $ids
     * @param  array<string, mixed>  $changes
     */
    private function changeFields(array $ids, array $changes): void
    {
        if (array_key_exists('owner', $changes)) {
            Measurement::query()->whereIn('kpi_id', $ids)->update(['owner_id' => $changes['owner']]);
        }
        $columns = array_diff_key($changes, array_fill_keys(['owner', 'theme', 'objective', 'department'], true));
        if (array_key_exists('theme', $changes)) {
            $columns['theme_id'] = $changes['theme'] === null ? null : Theme::query()->firstOrCreate(['name' => $changes['theme']], ['position' => 1 + (int) Theme::query()->max('position')])->id;
        }
        if (array_key_exists('objective', $changes)) {
            $columns['objective_id'] = $this->database->table('objectives')->where('code', $changes['objective'])->value('id');
        }
        if (isset($changes['department'])) {
            $columns['department_id'] = $this->organisation->byCode($changes['department'])?->id;
        }
        if ($columns !== []) {
            $this->database->table('kpis')->whereIn('id', $ids)->update([...$columns, 'version' => $this->database->raw('version + 1'), 'updated_at' => now()]);
        }
    }

    /** @param  list<int>  $ids */
    private function retire(array $ids, Period $until): void
    {
        $this->end(array_values($this->database->table('kpi_unit')->whereIn('kpi_id', $ids)->pluck('id')->all()), $until, 'until');
    }

    /** @param  list<int>  $places  measurements whose last month is set */
    private function end(array $places, Period $until, string $field): void
    {
        $later = $this->database->table('readings')->join('kpi_unit', 'kpi_unit.id', '=', 'readings.kpi_unit_id')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->whereIn('kpi_unit_id', $places)->where('period', '>', Month::date($until))->whereRaw('(actual IS NOT NULL OR colour IS NOT NULL)')->value('kpis.name');
        if ($later !== null) {
            throw ValidationException::withMessages([$field => "{$later} has readings after ".Month::words($until).'. Choose a later month, or take them back first.']);
        }
        $this->database->table('kpi_unit')->whereIn('id', $places)
            ->whereRaw('(measured_from IS NULL OR measured_from <= ?)', [Month::date($until)])
            ->whereRaw('(measured_to IS NULL OR measured_to > ?)', [Month::date($until)])
            ->update(['measured_to' => Month::date($until)]);
    }

    /** @param  list<int>  $ids */
    private function move(array $ids, string $from, string $to, Period $at): void
    {
        $old = $this->organisation->byCode($from)->id ?? 0;
        $new = $this->organisation->byCode($to)->id ?? 0;
        $places = $this->database->table('kpi_unit')->whereIn('kpi_id', $ids)->where('unit_id', $old)->get();
        $there = $this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')->where('unit_id', $new)
            ->whereIn('kpi_id', $places->pluck('kpi_id'))->value('kpis.name');
        if ($there !== null) {
            throw ValidationException::withMessages(['moveTo' => "{$there} is measured there already."]);
        }
        $this->end(array_values($places->pluck('id')->all()), $at->previous(), 'moveAt');
        $last = (int) $this->database->table('kpi_unit')->where('unit_id', $new)->max('position');
        $this->database->table('kpi_unit')->insert(array_values($places->map(fn (stdClass $place, int $index): array => [
            'kpi_id' => $place->kpi_id, 'unit_id' => $new, 'owner_id' => $place->owner_id, 'weight' => $place->weight, 'position' => $last + 1 + $index,
            'measured_from' => Month::date($at), 'measured_to' => $place->measured_to,
        ])->all()));
    }
}
