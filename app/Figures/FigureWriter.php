<?php

declare(strict_types=1);

namespace App\Figures;

use App\Models\User;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Owed;

/**
 * The one writer of readings, targets and notes, whatever they come from: month sheet, year grid, editor, import.
 *
 * It holds the KPIs in their units first, looks what stands in the cells, and writes those that stand as they were
 * seen, are allowed and differ. What stands there already is the same, whoever asks: an answer that was lost can be
 * asked for again. To be called inside a transaction.
 *
 * Its statements set off triggers: the trail, the lock of closed months, the marks on what was judged before
 * (docs/architecture.md, Hidden hops).
 */
final readonly class FigureWriter
{
    public function __construct(
        private Connection $database,
        private MeasurementLock $lock,
        private EntryRules $rules,
        private Closures $closures,
        private PeriodDate $dates,
    ) {}

    /**
     * @template Key of array-key
     *
     * @param  array<Key, WantedCell>  $wanted  each cell once
     * @return array<Key, Written>
     */
    public function write(Layer $layer, array $wanted, User $user): array
    {
        if ($wanted === []) {
            return [];
        }
        $this->lock->hold(array_values(array_map(fn (WantedCell $cell): int => $cell->kpi->id, $wanted)));
        // A month may have been closed while this waited.
        $this->closures->forget();
        $standing = $this->standing($layer, $wanted);
        $written = [];
        $changed = [];
        foreach ($wanted as $key => $cell) {
            $written[$key] = $this->decide($layer, $cell, $standing[$key], $user);
            if ($written[$key]->outcome === Outcome::Saved) {
                $changed[] = $cell;
            }
        }
        if ($changed !== []) {
            match ($layer) {
                Layer::Reading => $this->writeReadings($changed, $user),
                Layer::Target => $this->writeTargets($changed),
                Layer::Note => $this->writeNotes($changed, $standing, $wanted, $user),
            };
        }

        return $written;
    }

    /**
     * What stands in cells.
     *
     * @template Key of array-key
     *
     * @param  array<Key, WantedCell>  $cells
     * @return array<Key, Standing>
     */
    public function standing(Layer $layer, array $cells): array
    {
        $columns = match ($layer) {
            Layer::Reading => 'readings.actual AS figure, NULL AS upper, colour, readings.version, users.name AS by, as_of, notes.id IS NOT NULL AS noted, parts.parts',
            Layer::Target => 'coalesce(target, low) AS figure, high AS upper, NULL AS colour, 0 AS version, NULL AS by, NULL AS as_of, false AS noted, NULL AS parts',
            Layer::Note => 'text, outlook, doing, notes.version, users.name AS by',
        };
        $tables = match ($layer) {
            Layer::Reading => 'LEFT JOIN readings USING (kpi_unit_id, period) LEFT JOIN notes USING (kpi_unit_id, period) LEFT JOIN users ON users.id = readings.entered_by
                LEFT JOIN LATERAL (SELECT jsonb_object_agg(part, trim_scale(actual)::text) AS parts FROM reading_parts WHERE reading_parts.kpi_unit_id = wanted.kpi_unit_id AND reading_parts.period = wanted.period) AS parts ON true',
            Layer::Target => 'JOIN targets USING (kpi_unit_id, period)',
            Layer::Note => 'JOIN notes USING (kpi_unit_id, period) LEFT JOIN users ON users.id = notes.author_id',
        };
        $found = [];
        foreach ($this->database->select(
            "SELECT kpi_unit_id, period, {$columns} FROM unnest(?::bigint[], ?::date[]) AS wanted (kpi_unit_id, period) {$tables}",
            $this->places(array_values($cells)),
        ) as $row) {
            $found[$row->kpi_unit_id.$row->period] = $layer === Layer::Note
                ? new Standing(new NoteText($row->text, $row->outlook, $row->doing), $row->version, $row->by)
                : new Standing(CellValue::kept($row->figure, $row->upper, $row->colour), $row->version ?? 0, $row->by, $row->as_of, $row->noted, self::parts($row->parts));
        }
        $nothing = new Standing($layer === Layer::Note ? new NoteText : new CellValue);

        return array_map(fn (WantedCell $cell): Standing => $found[$cell->kpi->id.$this->dates->date($cell->period)] ?? $nothing, $cells);
    }

    /**
     * Figures set for whole financial years.
     *
     * @param  list<int>  $measurements
     * @return array<string, CellValue> by measurement and year, such as `12 2026`
     */
    public function standingYears(array $measurements): array
    {
        $standing = [];
        foreach ($measurements === [] ? [] : $this->database->table('year_targets')->whereIn('kpi_unit_id', $measurements)->get() as $row) {
            $standing["{$row->kpi_unit_id} {$row->year}"] = CellValue::kept($row->target ?? $row->low, $row->high);
        }

        return $standing;
    }

    /**
     * Writes figures set for a whole financial year.
     *
     * @param  array<int, array{CellValue, CellValue|null}>  $wanted  what is wanted and what was seen (null: whatever stands), by measurement
     * @return array<int, Written>
     */
    public function writeYears(array $wanted, int $year): array
    {
        $this->lock->hold(array_keys($wanted));
        $standing = $this->standingYears(array_keys($wanted));
        $written = [];
        foreach ($wanted as $id => [$value, $seen]) {
            $stands = $standing["{$id} {$year}"] ?? new CellValue;
            $outcome = match (true) {
                $value->equals($stands) => Outcome::Same,
                $seen !== null && ! $seen->equals($stands) => Outcome::Conflict,
                default => Outcome::Saved,
            };
            $written[$id] = new Written($outcome, new Standing($stands));
            $key = ['kpi_unit_id' => $id, 'year' => $year];
            if ($outcome === Outcome::Saved && $value->isBlank()) {
                $this->database->table('year_targets')->where($key)->delete();
            } elseif ($outcome === Outcome::Saved) {
                $this->database->table('year_targets')->updateOrInsert($key, $value->upper === null
                    ? ['target' => (string) $value->figure, 'low' => null, 'high' => null]
                    : ['target' => null, 'low' => (string) $value->figure, 'high' => (string) $value->upper]);
            }
        }

        return $written;
    }

    private function decide(Layer $layer, WantedCell $cell, Standing $standing, User $user): Written
    {
        $reason = $this->rules->refusal($layer, $cell->kpi, $cell->period, $cell->value, $user, $cell->isOver);

        return match (true) {
            // Whether a guess is right is told only to those who may know.
            $this->isSame($cell, $standing) && $this->rules->isMine($cell->kpi, $user) => new Written(Outcome::Same, $standing),
            $reason !== '' => new Written(Outcome::Refused, $standing, $reason),
            ! $this->isAsSeen($cell, $standing) => new Written(Outcome::Conflict, $standing),
            $layer === Layer::Reading && $cell->parts === null && $standing->parts !== [] => new Written(Outcome::Refused, $standing, 'It is the sum of its parts: change those, on the month sheet.'),
            $layer === Layer::Reading && $this->lacksReason($cell, $standing) => new Written(Outcome::Refused, $standing, 'A colour needs its reason.'),
            $layer === Layer::Reading && $cell->isOver && ! $cell->value->isBlank() && ! $standing->isNoted => new Written(Outcome::Refused, $standing, 'A figure over the counted one needs its reason.'),
            $layer === Layer::Note && $this->isNeeded($cell) => new Written(Outcome::Refused, $standing, 'A colour needs its reason: take the colour back first.'),
            default => new Written(Outcome::Saved, $standing),
        };
    }

    /** The same figure entered again when its period is over is not provisional any longer: that is a change. */
    private function isSame(WantedCell $cell, Standing $standing): bool
    {
        return $standing->holds($cell->value) && ($cell->parts === null || $standing->hasParts($cell->parts)) && ($standing->asOf === null || $this->state($cell)->asOf !== null);
    }

    private function isAsSeen(WantedCell $cell, Standing $standing): bool
    {
        return match (true) {
            $cell->seen === null => true,
            is_int($cell->seen) => $cell->seen === $standing->version,
            default => $standing->holds($cell->seen),
        };
    }

    private function lacksReason(WantedCell $cell, Standing $standing): bool
    {
        return $cell->value instanceof CellValue && Owed::colourLacksReason($cell->value->colour, $standing->isNoted);
    }

    /** The note of a colour that stands; asked of the few notes that are taken away. */
    private function isNeeded(WantedCell $cell): bool
    {
        return $cell->value instanceof NoteText && $cell->value->text === '' && Owed::asksReason($cell->kpi->measurement->definition)
            && $this->database->table('readings')->where('kpi_unit_id', $cell->kpi->id)->where('period', $this->dates->date($cell->period))->whereNotNull('colour')->exists();
    }

    private function state(WantedCell $cell): ReadingState
    {
        return $cell->state ?? new ReadingState(ReadingStage::Entered, $cell->value->isBlank() ? null : $this->rules->asOf($cell->period));
    }

    /**
     * @param  list<WantedCell>  $cells
     * @return array{string, string} identities and dates, as the database's arrays
     */
    private function places(array $cells): array
    {
        return [
            PgArray::of(array_map(fn (WantedCell $cell): int => $cell->kpi->id, $cells)),
            PgArray::of(array_map(fn (WantedCell $cell): string => $this->dates->date($cell->period), $cells)),
        ];
    }

    /** @param  list<WantedCell>  $cells */
    private function writeReadings(array $cells, User $user): void
    {
        $values = array_map(fn (WantedCell $cell): CellValue => self::value($cell), $cells);
        $states = array_map($this->state(...), $cells);
        $this->database->affectingStatement(
            'INSERT INTO readings (kpi_unit_id, period, actual, colour, state, as_of, entered_by, created_at, updated_at)
             SELECT kpi_unit_id, period, actual, colour, state, as_of, ?, now(), now()
             FROM unnest(?::bigint[], ?::date[], ?::numeric[], ?::text[], ?::text[], ?::date[]) AS wanted (kpi_unit_id, period, actual, colour, state, as_of)
             ON CONFLICT (kpi_unit_id, period) DO UPDATE SET actual = excluded.actual, colour = excluded.colour, as_of = excluded.as_of,
                 state = excluded.state, version = readings.version + 1, entered_by = excluded.entered_by, updated_at = now()',
            [
                $user->id,
                ...$this->places($cells),
                PgArray::of(array_map(fn (CellValue $value): ?string => $value->figure?->__toString(), $values)),
                PgArray::of(array_map(fn (CellValue $value): ?string => $value->colour?->value, $values)),
                PgArray::of(array_map(fn (ReadingState $state): string => $state->stage->value, $states)),
                PgArray::of(array_map(fn (ReadingState $state): ?string => $state->asOf, $states)),
            ],
        );
        $this->writeParts(array_values(array_filter($cells, fn (WantedCell $cell): bool => $cell->parts !== null)));
    }

    /** @param  list<WantedCell>  $cells  whose parts are known */
    private function writeParts(array $cells): void
    {
        if ($cells === []) {
            return;
        }
        $this->delete('reading_parts', $cells);
        $rows = [];
        foreach ($cells as $cell) {
            foreach ($cell->parts ?? [] as $part => $figure) {
                $rows[] = ['kpi_unit_id' => $cell->kpi->id, 'period' => $this->dates->date($cell->period), 'part' => (string) $part, 'actual' => (string) $figure];
            }
        }
        $this->database->table('reading_parts')->insert($rows);
    }

    /** @return array<string, BigDecimal> */
    private static function parts(?string $json): array
    {
        /** @var array<string, string> $parts */
        $parts = $json === null ? [] : json_decode($json, true, flags: JSON_THROW_ON_ERROR);

        return array_map(BigDecimal::of(...), $parts);
    }

    /** @param  list<WantedCell>  $cells */
    private function writeTargets(array $cells): void
    {
        $set = array_values(array_filter($cells, fn (WantedCell $cell): bool => ! $cell->value->isBlank()));
        $emptied = array_values(array_filter($cells, fn (WantedCell $cell): bool => $cell->value->isBlank()));
        if ($set !== []) {
            $figures = fn (callable $of): string => PgArray::of(array_map(fn (WantedCell $cell): ?string => $of(self::value($cell))?->__toString(), $set));
            $this->database->affectingStatement(
                'INSERT INTO targets (kpi_unit_id, period, target, low, high)
                 SELECT * FROM unnest(?::bigint[], ?::date[], ?::numeric[], ?::numeric[], ?::numeric[])
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET target = excluded.target, low = excluded.low, high = excluded.high',
                [
                    ...$this->places($set),
                    $figures(fn (CellValue $value) => $value->upper === null ? $value->figure : null),
                    $figures(fn (CellValue $value) => $value->upper === null ? null : $value->figure),
                    $figures(fn (CellValue $value) => $value->upper),
                ],
            );
        }
        if ($emptied !== []) {
            $this->delete('targets', $emptied);
        }
    }

    /**
     * @param  list<WantedCell>  $cells
     * @param  array<array-key, Standing>  $standing
     * @param  array<array-key, WantedCell>  $wanted  with the keys of what stands
     */
    private function writeNotes(array $cells, array $standing, array $wanted, User $user): void
    {
        $texts = [];
        foreach ($wanted as $key => $cell) {
            $texts[spl_object_id($cell)] = $cell->value instanceof NoteText && $standing[$key]->value instanceof NoteText ? $cell->value->over($standing[$key]->value) : new NoteText;
        }
        $text = fn (WantedCell $cell): NoteText => $texts[spl_object_id($cell)];
        $set = array_values(array_filter($cells, fn (WantedCell $cell): bool => ! $text($cell)->isBlank()));
        $emptied = array_values(array_filter($cells, fn (WantedCell $cell): bool => $text($cell)->isBlank()));
        if ($set !== []) {
            $this->database->affectingStatement(
                // A number that no other note ever had: one that was removed and written anew is another note.
                "INSERT INTO notes (kpi_unit_id, period, text, outlook, doing, version, author_id, created_at, updated_at)
                 SELECT kpi_unit_id, period, text, outlook, doing, nextval('note_versions'), ?, now(), now()
                 FROM unnest(?::bigint[], ?::date[], ?::text[], ?::text[], ?::text[]) AS wanted (kpi_unit_id, period, text, outlook, doing)
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET text = excluded.text, outlook = excluded.outlook, doing = excluded.doing,
                     version = excluded.version, author_id = excluded.author_id, updated_at = now()",
                [
                    $user->id,
                    ...$this->places($set),
                    PgArray::of(array_map(fn (WantedCell $cell): string => $text($cell)->text, $set)),
                    PgArray::of(array_map(fn (WantedCell $cell): string => (string) $text($cell)->outlook, $set)),
                    PgArray::of(array_map(fn (WantedCell $cell): string => (string) $text($cell)->doing, $set)),
                ],
            );
        }
        if ($emptied !== []) {
            $this->delete('notes', $emptied);
        }
    }

    /** @param  list<WantedCell>  $cells */
    private function delete(string $table, array $cells): void
    {
        $this->database->affectingStatement(
            "DELETE FROM {$table} USING unnest(?::bigint[], ?::date[]) AS gone (kpi_unit_id, period)
             WHERE {$table}.kpi_unit_id = gone.kpi_unit_id AND {$table}.period = gone.period",
            $this->places($cells),
        );
    }

    private static function value(WantedCell $cell): CellValue
    {
        return $cell->value instanceof CellValue ? $cell->value : throw new \LogicException('A note is no figure.');
    }
}
