<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Models\RecordLoad;
use App\Records\KeptSet;
use App\Records\RecordSets;
use App\Tables\BadTable;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;
use InvalidArgumentException;
use Kybernet\Core\Records\FieldType;

/**
 * Reads a file of records into a table of its own, and holds it against what is there: new, changed, the same, or refused
 * and why. Nothing else is written, and how far it is is told as it goes.
 */
final readonly class StageFile
{
    /** Records that go to the database in one go. */
    private const CHUNK = 20_000;

    /** Sorting a million keys in small heaps takes several times as long. */
    public const ROOM = "SET LOCAL work_mem = '192MB'";

    /** So many refusals are told one by one; the others are counted. */
    private const MOST_TOLD = 1_000;

    public function __construct(private Connection $database, private RecordSets $sets, private CountedRows $rows) {}

    public function __invoke(RecordLoad $load): void
    {
        $set = $this->sets->of($load->record_set_id);
        $this->database->table('record_refusals')->where('record_load_id', $load->id)->delete();
        try {
            [$brought, $refused, $columns] = $this->copy($load, $set);
            [$twice, $counts] = $this->database->transaction(function () use ($load, $set, $columns): array {
                // Held for as long as it takes, so that nobody takes the worker for dead.
                $this->hold($load);
                $this->database->statement(self::ROOM);

                return [$this->refuseTwice($load, $set), $this->held($load, $set, $columns)];
            });
            $refused += $twice;
        } catch (NotItsTurn) {
            return;
        } catch (BadTable $bad) {
            $this->database->select('SELECT kybernet_unstage_records(?)', [$load->id]);
            $this->end($load, ['state' => 'failed', 'problem' => $bad->getMessage()]);

            return;
        }
        $this->end($load, ['state' => 'ready', 'progress' => $brought, 'brought' => $brought, 'refused' => $refused, ...$counts]);
    }

    /** @return array{int, int, list<string>} how many records there are, how many were refused, and the columns that the file brings */
    private function copy(RecordLoad $load, KeptSet $set): array
    {
        $file = (new RecordFile((string) $load->path, $load->sheet))->rows();
        $head = $file->current();
        if (! $file->valid()) {
            throw new BadTable('The file has no line that names its columns.');
        }
        $map = ColumnMap::of($head, $load->mapping, array_keys($set->set()->fields));
        if (! in_array($set->entry->key, $map->fields(), true)) {
            throw new BadTable("No column holds '{$set->entry->key}', by which records are told apart.");
        }
        $columns = array_map(fn (string $field): string => $set->table->columns[$field], $map->fields());
        $this->database->select('SELECT kybernet_stage_records(?, ?)', [$load->id, json_encode(array_combine($columns, array_map(fn (string $field): string => $set->set()->fields[$field]->value, $map->fields())), JSON_THROW_ON_ERROR)]);
        $cell = new RecordCell($this->rows->zone());
        $types = array_map(fn (array $column): FieldType => $set->set()->fields[$column['field']], $map->columns);
        [$brought, $refused, $lines, $refusals] = [0, 0, [], []];
        for ($file->next(); $file->valid(); $file->next()) {
            [$line, $row] = [$file->key(), $file->current()];
            $brought++;
            $values = [(string) $line];
            foreach ($map->columns as $at => $column) {
                try {
                    $value = $cell->read($types[$at], $column['form'], $row[$at] ?? '');
                    if ($value === null && $column['field'] === $set->entry->key) {
                        throw new InvalidArgumentException('It is missing, and records are told apart by it.');
                    }
                    $values[] = $value === null ? '\N' : (strpbrk($value, "\\\t\n\r") === false ? $value : addcslashes($value, "\\\t\n\r"));
                } catch (InvalidArgumentException $problem) {
                    $refused++;
                    if ($refused <= self::MOST_TOLD) {
                        $refusals[] = ['record_load_id' => $load->id, 'line' => $line, 'field' => $column['field'], 'typed' => mb_substr(ColumnMap::name($row[$at] ?? ''), 0, 200), 'reason' => mb_substr($problem->getMessage(), 0, 300)];
                    }

                    continue 2;
                }
            }
            $lines[] = implode("\t", $values);
            if (count($lines) >= self::CHUNK) {
                $this->write($load, $lines, $columns, $refusals, $brought);
                $lines = $refusals = [];
            }
        }
        $this->write($load, $lines, $columns, $refusals, $brought);

        return [$brought, $refused, $columns];
    }

    /**
     * @param  list<string>  $lines
     * @param  list<string>  $columns
     * @param  list<array<string, mixed>>  $refusals
     */
    private function write(RecordLoad $load, array $lines, array $columns, array $refusals, int $progress): void
    {
        $this->database->transaction(function () use ($load, $lines, $columns, $refusals, $progress): void {
            $this->hold($load);
            $this->database->table('record_loads')->where('id', $load->id)->update(['progress' => $progress, 'alive_at' => now()]);
            if ($lines !== []) {
                $pdo = DB::connection()->getPdo();
                $pdo->pgsqlCopyFromArray("records.s{$load->id}", $lines, "\t", '\\\\N', implode(',', ['line', ...$columns]));
            }
            $this->database->table('record_refusals')->insert($refusals);
        });
    }

    /** @throws NotItsTurn where another worker has been set to it: what is staged is that one's */
    private function hold(RecordLoad $load): void
    {
        if ($this->database->table('record_loads')->where('id', $load->id)->where('turn', $load->turn)->where('state', 'reading')->lockForUpdate()->value('id') === null) {
            throw new NotItsTurn;
        }
    }

    /** Of a record that stands twice in the file the first is taken. */
    private function refuseTwice(RecordLoad $load, KeptSet $set): int
    {
        $key = $set->table->columns[$set->entry->key];

        $twice = $this->database->scalar(
            "WITH twice AS (
                 SELECT line, first, typed FROM (SELECT line, first_value(line) OVER told AS first, row_number() OVER told AS place, {$key}::text AS typed FROM records.s{$load->id} WINDOW told AS (PARTITION BY {$key} ORDER BY line)) AS each WHERE place > 1
             ), told AS (
                 INSERT INTO record_refusals (record_load_id, line, field, typed, reason) SELECT ?, line, ?, left(typed, 200), 'It stands in line ' || first || ' already.' FROM twice ORDER BY line LIMIT ? ON CONFLICT DO NOTHING
             ), gone AS (DELETE FROM records.s{$load->id} staged USING twice WHERE staged.line = twice.line RETURNING 1)
             SELECT count(*) FROM gone",
            [$load->id, $set->entry->key, self::MOST_TOLD],
        );

        return is_int($twice) ? $twice : 0;
    }

    /**
     * @param  list<string>  $columns
     * @return array<string, int>
     */
    private function held(RecordLoad $load, KeptSet $set, array $columns): array
    {
        $this->database->statement("ANALYZE records.s{$load->id}");
        $row = $this->database->selectOne((new LoadSql($set, $load->id, $columns))->counts());
        $counts = is_object($row) ? array_map(intval(...), get_object_vars($row)) : [];
        $isAdding = $load->mode === 'add';

        return [
            'added' => $counts['added'] ?? 0,
            'changed' => $isAdding ? 0 : $counts['changed'] ?? 0,
            'same' => ($counts['same'] ?? 0) + ($isAdding ? $counts['changed'] ?? 0 : 0),
            'gone' => $load->mode === 'all' ? $counts['gone'] ?? 0 : 0,
        ];
    }

    /** @param  array<string, mixed>  $columns */
    private function end(RecordLoad $load, array $columns): void
    {
        $this->database->table('record_loads')->where('id', $load->id)->where('turn', $load->turn)->where('state', 'reading')->update([...$columns, 'updated_at' => now()]);
    }
}
