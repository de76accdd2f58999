<?php

declare(strict_types=1);

namespace App\Import;

use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;
use stdClass;

/**
 * Applies an import that was previewed, and undoes one, each as a whole. What somebody changed in the meantime stays.
 */
final readonly class ImportFigures
{
    /** What a cell holds as the database writes it, by table. */
    public const WAS = [
        'readings' => "coalesce(readings.colour, trim_scale(readings.actual)::text, '')",
        'targets' => "coalesce(trim_scale(targets.target)::text, trim_scale(targets.low)::text || ' ' || trim_scale(targets.high)::text, '')",
        'notes' => "coalesce(notes.text, '')",
    ];

    private const LAYERS = ['readings' => "layer = 'actual'", 'targets' => "layer IN ('target', 'low')", 'notes' => "layer = 'note'"];

    public function __construct(private Connection $database, private Trail $trail) {}

    /** Writes what is new or changed. */
    public function apply(stdClass $import, int $user): void
    {
        $this->whole($import, 'applied', '', function () use ($import, $user): void {
            foreach (self::LAYERS as $table => $layer) {
                $was = self::WAS[$table];
                $this->database->update(
                    "UPDATE import_cells cell SET outcome = 'refused', reason = 'Somebody changed this since the preview.'
                     FROM import_cells wanted LEFT JOIN {$table} ON {$table}.kpi_unit_id = wanted.kpi_unit_id AND {$table}.period = wanted.period
                     WHERE cell.ctid = wanted.ctid AND wanted.import_id = ? AND wanted.{$layer} AND wanted.outcome IN ('new', 'changed') AND {$was} <> wanted.was",
                    [$import->id],
                );
            }
            $chosen = "FROM import_cells WHERE import_id = ? AND outcome IN ('new', 'changed')";
            // Notes first: a colour must find its reason.
            $this->database->affectingStatement(
                "INSERT INTO notes (kpi_unit_id, period, text, author_id, created_at, updated_at)
                 SELECT kpi_unit_id, period, note, ?, now(), now() {$chosen} AND layer = 'note'
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET text = excluded.text, version = notes.version + 1, author_id = excluded.author_id, updated_at = now()",
                [$user, $import->id],
            );
            $this->database->affectingStatement(
                "INSERT INTO readings (kpi_unit_id, period, actual, colour, entered_by, created_at, updated_at)
                 SELECT kpi_unit_id, period, figure, colour, ?, now(), now() {$chosen} AND layer = 'actual'
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET actual = excluded.actual, colour = excluded.colour, as_of = NULL, state = 'entered',
                     version = readings.version + 1, entered_by = excluded.entered_by, updated_at = now()",
                [$user, $import->id],
            );
            $this->database->affectingStatement(
                "INSERT INTO targets (kpi_unit_id, period, target, low, high)
                 SELECT kpi_unit_id, period, CASE WHEN upper IS NULL THEN figure END, CASE WHEN upper IS NOT NULL THEN figure END, upper {$chosen} AND layer IN ('target', 'low')
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET target = excluded.target, low = excluded.low, high = excluded.high",
                [$import->id],
            );
        });
    }

    /** Puts back what stood there before. */
    public function undo(stdClass $import): void
    {
        $this->whole($import, 'undone', 'Import undone', function () use ($import): void {
            $trail = 'FROM audit_entries entry WHERE entry.batch = ? AND entry.subject = ';
            $same = fn (string $table, string $columns): string => "{$table}.kpi_unit_id = entry.kpi_unit_id AND {$table}.period = entry.period
                AND ({$columns}) IS NOT DISTINCT FROM";
            $this->database->update(
                "UPDATE readings SET actual = (entry.before ->> 'actual')::numeric, colour = entry.before ->> 'colour', as_of = (entry.before ->> 'as_of')::date,
                     state = coalesce(entry.before ->> 'state', 'entered'), version = version + 1, updated_at = now()
                 {$trail} 'readings' AND {$same('readings', 'readings.actual, readings.colour')} ((entry.after ->> 'actual')::numeric, entry.after ->> 'colour')",
                [$import->batch],
            );
            $this->database->delete(
                "DELETE FROM notes USING audit_entries entry WHERE entry.batch = ? AND entry.subject = 'notes' AND entry.before IS NULL
                     AND {$same('notes', 'notes.text')} (entry.after ->> 'text')",
                [$import->batch],
            );
            $this->database->update(
                "UPDATE notes SET text = entry.before ->> 'text', version = version + 1, author_id = (entry.before ->> 'author_id')::bigint, updated_at = now()
                 {$trail} 'notes' AND entry.before IS NOT NULL AND {$same('notes', 'notes.text')} (entry.after ->> 'text')",
                [$import->batch],
            );
            $target = 'targets.target, targets.low, targets.high';
            $after = "((entry.after ->> 'target')::numeric, (entry.after ->> 'low')::numeric, (entry.after ->> 'high')::numeric)";
            $this->database->delete(
                "DELETE FROM targets USING audit_entries entry WHERE entry.batch = ? AND entry.subject = 'targets' AND entry.before IS NULL AND {$same('targets', $target)} {$after}",
                [$import->batch],
            );
            $this->database->update(
                "UPDATE targets SET target = (entry.before ->> 'target')::numeric, low = (entry.before ->> 'low')::numeric, high = (entry.before ->> 'high')::numeric
                 {$trail} 'targets' AND entry.before IS NOT NULL AND {$same('targets', $target)} {$after}",
                [$import->batch],
            );
        });
    }

    /** @param  \Closure(): void  $work */
    private function whole(stdClass $import, string $state, string $reason, \Closure $work): void
    {
        $batch = $state === 'undone' ? '' : $import->batch;
        try {
            $this->trail->within($batch, $reason, function () use ($import, $state, $work): void {
                $work();
                $this->database->table('imports')->where('id', $import->id)->update(['state' => $state, "{$state}_at" => now(), 'problem' => '', 'updated_at' => now()]);
            });
        } catch (QueryException $refused) {
            if ($refused->getCode() !== 'KY001') {
                throw $refused;
            }
            $this->database->table('imports')->where('id', $import->id)->update([
                'state' => $state === 'undone' ? 'applied' : 'ready', 'updated_at' => now(),
                'problem' => 'A month that it touches was closed in the meantime, so nothing was changed. Reopen the month, or read the file again.',
            ]);
        }
    }
}
