<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Figures\CountedWriter;
use App\Kept\RefreshJob;
use App\Models\RecordLoad;
use App\Records\KeptSet;
use App\Records\RecordSets;
use App\Records\RecordSql;
use App\Support\Trail;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Kybernet\Core\Records\Day;

/**
 * Brings in what a load has read, and takes it back: all or nothing, with every figure that is counted from the set. One
 * load of a set after the other.
 */
final readonly class BringIn
{
    /** So many loads of a set can be taken back, the latest first. */
    private const KEPT = 5;

    public function __construct(
        private Connection $database,
        private RecordSets $sets,
        private CountedRows $rows,
        private CountedWriter $writer,
        private Trail $trail,
        private Dispatcher $jobs,
    ) {}

    public function apply(RecordLoad $load): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($load): void {
            $set = $this->hold($load, 'applying');
            if ($set === null) {
                return;
            }
            $this->database->statement(StageFile::ROOM);
            $columns = array_values(array_filter($this->columns($load), fn (string $column): bool => $column !== 'line'));
            $sql = new LoadSql($set, $load->id, $columns);
            $changed = $gone = 0;
            if ($load->mode !== 'add') {
                $changed = $this->database->affectingStatement($sql->keepChanged());
                $this->database->affectingStatement($sql->change());
            }
            if ($load->mode === 'all') {
                $gone = $this->database->affectingStatement($sql->keepGone());
                $this->database->affectingStatement($sql->remove());
            }
            $added = $this->database->affectingStatement($sql->add());
            $this->database->select('SELECT kybernet_unstage_records(?)', [$load->id]);
            $before = $this->database->table('record_sets')->where('id', $set->id)->first(['covers_to', 'covers_by_loads']);
            $covers = $before?->covers_by_loads === true && $load->covers_to !== null ? max($load->covers_to, is_string($before->covers_to) ? $before->covers_to : '') : null;
            $this->settle($set, $sql, $covers === null ? [] : ['covers_to' => $covers], $changed + $gone + $added > 0 || $covers !== null);
            $this->database->table('record_loads')->where('id', $load->id)->update([
                'state' => 'applied', 'added' => $added, 'changed' => $changed, 'gone' => $gone, 'same' => $load->brought - $load->refused - $added - $changed,
                'covers_to_before' => $before?->covers_to, 'applied_at' => now(), 'updated_at' => now(),
            ]);
            $this->forgetOlder($set);
        });
        $this->database->statement('ANALYZE '.$this->sets->of($load->record_set_id)->table->name);
        $this->after();
    }

    public function undo(RecordLoad $load): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($load): void {
            $set = $this->hold($load, 'undoing');
            if ($set === null) {
                return;
            }
            if ($this->latest($set->id) !== $load->id) {
                $this->database->table('record_loads')->where('id', $load->id)->update(['state' => 'applied', 'problem' => $load->applied_at === null ? 'So many loads have come in after it that what it replaced is not known any more.' : 'Another load has come in after it: take that one back first.']);

                return;
            }
            $sql = new LoadSql($set, $load->id, []);
            $touched = $this->touched($set, $sql);
            $this->database->affectingStatement($sql->takeBackAdded());
            $this->database->affectingStatement($sql->putBack(array_values($set->table->columns)));
            $isByLoads = $this->database->table('record_sets')->where('id', $set->id)->value('covers_by_loads') === true;
            $this->change($set, $isByLoads && $load->covers_to !== null ? ['covers_to' => $load->covers_to_before] : []);
            $this->count($touched, $isByLoads && $load->covers_to !== null);
            $this->database->statement("DELETE FROM records.w{$set->id} WHERE by_load = ?", [$load->id]);
            $this->database->table('record_loads')->where('id', $load->id)->update(['state' => 'undone', 'updated_at' => now()]);
        });
        $this->after();
    }

    /** The load that can be taken back: the latest of which is known what it replaced. */
    public function latest(int $set): ?int
    {
        return $this->undoable($set)[0] ?? null;
    }

    /** @return list<int> the latest first; of all others it is not known any more what they replaced */
    private function undoable(int $set): array
    {
        return array_values(array_filter($this->database->table('record_loads')->where('record_set_id', $set)->where('state', '<>', 'undone')->whereNotNull('applied_at')->orderByDesc('applied_at')->orderByDesc('id')->pluck('id')->all(), is_int(...)));
    }

    private function forgetOlder(KeptSet $set): void
    {
        $older = array_slice($this->undoable($set->id), self::KEPT);
        if ($older !== []) {
            $this->database->table("records.w{$set->id}")->whereIn('by_load', $older)->delete();
            $this->database->table('record_loads')->whereIn('id', $older)->update(['applied_at' => null]);
        }
    }

    /** Holds the set, so that loads of it follow each other; null where it is not this worker's turn any more. */
    private function hold(RecordLoad $load, string $state): ?KeptSet
    {
        $this->database->table('record_sets')->where('id', $load->record_set_id)->lockForUpdate()->value('id');
        $this->sets->forget();

        return $this->database->table('record_loads')->where('id', $load->id)->where('turn', $load->turn)->where('state', $state)->lockForUpdate()->value('id') === null ? null : $this->sets->of($load->record_set_id);
    }

    /** @return list<string> the columns of what was read */
    private function columns(RecordLoad $load): array
    {
        return array_values(array_filter($this->database->table('pg_attribute')->whereRaw('attrelid = ?::regclass', ["records.s{$load->id}"])->where('attnum', '>', 0)->where('attisdropped', false)->orderBy('attnum')->pluck('attname')->all(), is_string(...)));
    }

    /** @param  array<string, mixed>  $columns  of the set that change with it */
    private function settle(KeptSet $set, LoadSql $sql, array $columns, bool $isChanged): void
    {
        $touched = $this->touched($set, $sql);
        $this->change($set, $columns);
        if ($isChanged) {
            $this->count($touched, $columns !== []);
        }
    }

    /** @param  array<string, mixed>  $columns */
    private function change(KeptSet $set, array $columns): void
    {
        $this->database->table('record_sets')->where('id', $set->id)->update([...$columns, 'records' => $this->database->table($set->table->name)->count(), 'version' => $this->database->raw('version + 1'), 'updated_at' => now()]);
        $this->sets->forget();
    }

    /**
     * The days of what a load touches, for each KPI that is counted from the set.
     *
     * @return array<int, array{int, int}|null> by KPI; null where nothing of it is dated
     */
    private function touched(KeptSet $set, LoadSql $sql): array
    {
        $text = new RecordSql($set->set(), $set->table->columns, $this->rows->zone(), 'NULL');
        $days = $touched = [];
        foreach ($this->database->table('kpis')->where('record_set_id', $set->id)->pluck('counted', 'id') as $kpi => $counted) {
            /** @var array{datedBy: string} $how */
            $how = json_decode(is_string($counted) ? $counted : '{}', true, flags: JSON_THROW_ON_ERROR);
            if (! array_key_exists($how['datedBy'], $days)) {
                $row = $this->database->selectOne($sql->touched($text->day($how['datedBy'])));
                $days[$how['datedBy']] = is_object($row) && is_string($row->first ?? null) && is_string($row->last ?? null) ? [Day::parse($row->first)->number, Day::parse($row->last)->number] : null;
            }
            $touched[(int) $kpi] = $days[$how['datedBy']];
        }

        return $touched;
    }

    /**
     * @param  array<int, array{int, int}|null>  $touched
     * @param  bool  $isWhole  whether all periods are to be looked at
     */
    private function count(array $touched, bool $isWhole): void
    {
        if ($this->writer->putOffLarge(array_keys($touched))) {
            $this->jobs->dispatch(new CountJob);

            return;
        }
        foreach ($touched as $kpi => $days) {
            if ($isWhole || $days !== null) {
                ($this->writer)([$kpi], $isWhole ? null : $days);
            }
        }
    }

    /** Whoever looks next does not wait for thousands of figures to be judged. */
    private function after(): void
    {
        $this->jobs->dispatch(new RefreshJob);
    }
}
