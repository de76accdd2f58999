<?php

declare(strict_types=1);

namespace App\Actions;

use App\Figures\CellReader;
use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\KpiFacts;
use App\Figures\KpiStore;
use App\Http\Resources\CellOutcome;
use App\Models\User;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;

/**
 * Saves a block of cells of the year grid: readings or targets. Good cells are saved, bad ones come back with their
 * reason, and a cell that somebody else has changed in the meantime is not touched.
 *
 * @phpstan-type Sound array{cell: TypedCell, kpi: KpiFacts, date: string, period: Period, value: CellValue}
 */
final readonly class SaveCells
{
    public function __construct(
        private Connection $database,
        private KpiStore $kpis,
        private EntryRules $rules,
        private CellReader $reader,
        private PeriodDate $dates,
        private Trail $trail,
    ) {}

    /**
     * @param  list<TypedCell>  $cells
     * @param  bool  $isTarget  targets instead of readings
     * @return list<CellOutcome> one a cell, in the same order
     */
    public function __invoke(array $cells, bool $isTarget, User $user): array
    {
        $text = new CellText(new NumberSetting($user->locale));
        $facts = $this->kpis->described(array_values(array_unique(array_map(fn (TypedCell $cell): int => $cell->measured, $cells))));
        $outcomes = [];
        $sound = [];
        foreach ($cells as $index => $cell) {
            $kpi = $facts[$cell->measured] ?? null;
            try {
                [$period, $value] = $this->reader->read($cell, $kpi, $isTarget, $user);
                if ($kpi !== null) {
                    $sound[$index] = ['cell' => $cell, 'kpi' => $kpi, 'date' => $this->dates->date($period), 'period' => $period, 'value' => $value];
                }
            } catch (InvalidArgumentException $problem) {
                $outcomes[$index] = CellOutcome::refused($cell->measured, $cell->period, $cell->typed, $problem->getMessage());
            }
        }
        $outcomes += $sound === [] ? [] : $this->trail->within((string) Str::uuid(), '', fn (): array => $this->save($sound, $isTarget, $user, $text));
        ksort($outcomes);

        return array_values($outcomes);
    }

    /**
     * @param  non-empty-array<int, Sound>  $sound
     * @return array<int, CellOutcome>
     */
    private function save(array $sound, bool $isTarget, User $user, CellText $text): array
    {
        $ids = array_values(array_map(fn (array $each): int => $each['cell']->measured, $sound));
        $dates = array_column($sound, 'date');
        // Whoever writes cells of the same KPIs waits here, so that between looking and writing nothing moves.
        $this->database->select('SELECT id FROM kpi_unit WHERE id = ANY(?::bigint[]) ORDER BY id FOR UPDATE', [PgArray::of(array_values(array_unique($ids)))]);
        $current = $this->current($ids, $dates, $isTarget);
        $outcomes = [];
        $changed = [];
        foreach ($sound as $index => ['cell' => $cell, 'kpi' => $kpi, 'date' => $date, 'value' => $value]) {
            [$stands, $by, $isNoted] = $current[$cell->measured.$date] ?? [new CellValue, 'Somebody', false];
            $written = $text->write($kpi->measurement->definition, $kpi->scaled, $stands);
            $outcomes[$index] = match (true) {
                $stands->equals($value) => CellOutcome::same($cell->measured, $cell->period, $written),
                ! $stands->equals($this->seen($kpi, $cell, $isTarget, $text)) => CellOutcome::conflict($cell->measured, $cell->period, $written, $by),
                $value->colour !== null && ! $isNoted => CellOutcome::refused($cell->measured, $cell->period, $cell->typed, 'A colour needs its reason: give it in the month sheet.'),
                default => CellOutcome::saved($cell->measured, $cell->period, $text->write($kpi->measurement->definition, $kpi->scaled, $value)),
            };
            if ($outcomes[$index]->outcome === 'saved') {
                $changed[] = $sound[$index];
            }
        }
        $isTarget ? $this->writeTargets($changed) : $this->writeReadings($changed, $user);

        return $outcomes;
    }

    private function seen(KpiFacts $kpi, TypedCell $cell, bool $isTarget, CellText $text): CellValue
    {
        try {
            return $text->read($kpi->measurement->definition, $cell->was, $isTarget);
        } catch (InvalidArgumentException) {
            return new CellValue;
        }
    }

    /**
     * @param  list<int>  $ids
     * @param  list<string>  $dates
     * @return array<string, array{CellValue, string, bool}> what stands in the cells, who wrote it, whether it has a note; by identity and date
     */
    private function current(array $ids, array $dates, bool $isTarget): array
    {
        $wanted = 'JOIN unnest(?::bigint[], ?::date[]) AS wanted (kpi_unit_id, period) USING (kpi_unit_id, period)';
        $rows = $this->database->select(
            $isTarget
                ? "SELECT kpi_unit_id, period, coalesce(target, low) AS figure, high AS upper, NULL AS colour, NULL AS by, false AS noted FROM targets {$wanted}"
                : 'SELECT kpi_unit_id, period, actual AS figure, NULL AS upper, colour, users.name AS by, notes.id IS NOT NULL AS noted
                   FROM unnest(?::bigint[], ?::date[]) AS wanted (kpi_unit_id, period)
                   LEFT JOIN readings USING (kpi_unit_id, period)
                   LEFT JOIN notes USING (kpi_unit_id, period)
                   LEFT JOIN users ON users.id = readings.entered_by',
            [PgArray::of($ids), PgArray::of($dates)],
        );
        $current = [];
        foreach ($rows as $row) {
            $current[$row->kpi_unit_id.$row->period] = [CellValue::kept($row->figure, $row->upper, $row->colour), $row->by ?? 'Somebody', $row->noted];
        }

        return $current;
    }

    /** @param  list<Sound>  $changed */
    private function writeReadings(array $changed, User $user): void
    {
        $this->database->affectingStatement(
            "INSERT INTO readings (kpi_unit_id, period, actual, colour, as_of, entered_by, created_at, updated_at)
             SELECT kpi_unit_id, period, actual, colour, as_of, ?, now(), now()
             FROM unnest(?::bigint[], ?::date[], ?::numeric[], ?::text[], ?::date[]) AS typed (kpi_unit_id, period, actual, colour, as_of)
             ON CONFLICT (kpi_unit_id, period) DO UPDATE SET actual = excluded.actual, colour = excluded.colour, as_of = excluded.as_of,
                 state = 'entered', version = readings.version + 1, entered_by = excluded.entered_by, updated_at = now()",
            [
                $user->id,
                PgArray::of(array_map(fn (array $each): int => $each['cell']->measured, $changed)),
                PgArray::of(array_column($changed, 'date')),
                PgArray::of(array_map(fn (array $each): ?string => $each['value']->figure?->__toString(), $changed)),
                PgArray::of(array_map(fn (array $each): ?string => $each['value']->colour?->value, $changed)),
                PgArray::of(array_map(fn (array $each): ?string => $each['value']->isBlank() ? null : $this->rules->asOf($each['period']), $changed)),
            ],
        );
    }

    /** @param  list<Sound>  $changed */
    private function writeTargets(array $changed): void
    {
        $set = array_values(array_filter($changed, fn (array $each): bool => ! $each['value']->isBlank()));
        $emptied = array_values(array_filter($changed, fn (array $each): bool => $each['value']->isBlank()));
        $keys = fn (array $cells): array => [
            PgArray::of(array_values(array_map(fn (array $each): int => $each['cell']->measured, $cells))),
            PgArray::of(array_column($cells, 'date')),
        ];
        $figures = fn (callable $of): string => PgArray::of(array_map(fn (array $each): ?string => $of($each['value'])?->__toString(), $set));
        $this->database->affectingStatement(
            'INSERT INTO targets (kpi_unit_id, period, target, low, high)
             SELECT * FROM unnest(?::bigint[], ?::date[], ?::numeric[], ?::numeric[], ?::numeric[])
             ON CONFLICT (kpi_unit_id, period) DO UPDATE SET target = excluded.target, low = excluded.low, high = excluded.high',
            [
                ...$keys($set),
                $figures(fn (CellValue $value) => $value->upper === null ? $value->figure : null),
                $figures(fn (CellValue $value) => $value->upper === null ? null : $value->figure),
                $figures(fn (CellValue $value) => $value->upper),
            ],
        );
        $this->database->affectingStatement(
            'DELETE FROM targets USING unnest(?::bigint[], ?::date[]) AS gone (kpi_unit_id, period)
             WHERE targets.kpi_unit_id = gone.kpi_unit_id AND targets.period = gone.period',
            $keys($emptied),
        );
    }
}
