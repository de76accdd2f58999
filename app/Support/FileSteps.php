<?php

declare(strict_types=1);

namespace App\Support;

use Closure;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\Connection;

/**
 * Begins the steps of files that come in, each once, and takes up again what a worker has left. The files are rows of a
 * table with `state`, `turn`, `tries`, `alive_at` and `problem`.
 */
final readonly class FileSteps
{
    private const MOST_TRIES = 3;

    /** Whoever reads a file says so every second or so. */
    private const SILENT_SECONDS = 20;

    /**
     * @param  string  $table  of the files
     * @param  Closure(int, int): ShouldQueue  $job  what does a step, for a file and a turn
     */
    public function __construct(private Connection $database, private Dispatcher $jobs, private string $table, private Closure $job) {}

    /**
     * @param  int  $file  its identity
     * @param  array<string, mixed>  $columns  that change with it
     * @return bool false where it was begun, or done, already: asked twice is asked once
     *
     * @throws NotAtThatPoint
     */
    public function begin(int $file, FileStep $step, array $columns = []): bool
    {
        return $this->database->transaction(function () use ($file, $step, $columns): bool {
            $row = $this->database->table($this->table)->where('id', $file)->lockForUpdate()->first(['state', 'turn']);
            $state = is_string($row?->state) ? $row->state : '';
            if ($step !== FileStep::Read && in_array($state, [$step->atWork(), $step->ends()], true)) {
                return false;
            }
            if (! in_array($state, $step->begins(), true)) {
                throw new NotAtThatPoint;
            }
            $turn = (is_int($row?->turn) ? $row->turn : 0) + 1;
            $this->database->table($this->table)->where('id', $file)->update([
                ...$columns, 'state' => $step->atWork(), 'problem' => '', 'turn' => $turn, 'tries' => 1, 'alive_at' => null, 'updated_at' => now(),
            ]);
            $this->jobs->dispatch(($this->job)($file, $turn));

            return true;
        });
    }

    /**
     * Files whose worker died: nobody holds them, and nobody has been heard of for a while. One may die between taking
     * the job and saying so: nothing was heard of the file yet, and no job waits any more.
     */
    public function resume(): void
    {
        $this->database->transaction(function (): void {
            /** @var list<object{id: int, state: string, turn: int, tries: int}> $left */
            $left = $this->database->select(
                "SELECT id, state, turn, tries FROM {$this->table} WHERE state IN ('reading', 'applying', 'undoing')
                    AND coalesce(alive_at, updated_at) < ?
                    AND (alive_at IS NOT NULL OR NOT EXISTS (SELECT 1 FROM jobs WHERE reserved_at IS NULL)) ORDER BY id FOR UPDATE SKIP LOCKED",
                [now()->subSeconds(self::SILENT_SECONDS)],
            );
            foreach ($left as $file) {
                if ($file->tries >= self::MOST_TRIES) {
                    $this->database->table($this->table)->where('id', $file->id)->update([
                        'state' => FileStep::ofState($file->state)?->backAt(), 'turn' => $file->turn + 1, 'updated_at' => now(),
                        'problem' => 'It was interrupted three times, and nothing was changed. Try again; a smaller file may help.',
                    ]);

                    continue;
                }
                $this->database->table($this->table)->where('id', $file->id)->update(['turn' => $file->turn + 1, 'tries' => $file->tries + 1, 'alive_at' => null, 'updated_at' => now()]);
                $this->jobs->dispatch(($this->job)($file->id, $file->turn + 1));
            }
        });
    }
}
