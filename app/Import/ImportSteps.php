<?php

declare(strict_types=1);

namespace App\Import;

use App\Models\Import;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Database\Connection;

/**
 * Begins the steps of an import, each once, and takes up again what a worker has left.
 */
final readonly class ImportSteps
{
    private const MOST_TRIES = 3;

    /** Whoever reads a file says so every second or so. */
    private const SILENT_SECONDS = 20;

    public function __construct(private Connection $database, private Dispatcher $jobs) {}

    /**
     * @param  array<string, mixed>  $columns  that change with it
     * @return bool false where it was begun, or done, already: asked twice is asked once
     *
     * @throws NotAtThatPoint
     */
    public function begin(Import $import, ImportStep $step, array $columns = []): bool
    {
        return $this->database->transaction(function () use ($import, $step, $columns): bool {
            $state = $this->database->table('imports')->where('id', $import->id)->lockForUpdate()->value('state');
            if ($step !== ImportStep::Read && in_array($state, [$step->atWork(), $step->ends()], true)) {
                return false;
            }
            if (! in_array($state, $step->begins(), true)) {
                throw new NotAtThatPoint;
            }
            $turn = (int) $this->database->table('imports')->where('id', $import->id)->value('turn') + 1;
            $this->database->table('imports')->where('id', $import->id)->update([
                ...$columns, 'state' => $step->atWork(), 'problem' => '', 'turn' => $turn, 'tries' => 1, 'alive_at' => null, 'updated_at' => now(),
            ]);
            $this->jobs->dispatch(new ImportJob($import->id, $turn));

            return true;
        });
    }

    /** Imports whose worker died: nobody holds them, and nobody has been heard of for a while. */
    public function resume(): void
    {
        $this->database->transaction(function (): void {
            $left = $this->database->select(
                "SELECT id, state, turn, tries FROM imports WHERE state IN ('reading', 'applying', 'undoing') AND alive_at < now() - make_interval(secs => ?) ORDER BY id FOR UPDATE SKIP LOCKED",
                [self::SILENT_SECONDS],
            );
            foreach ($left as $import) {
                if ($import->tries >= self::MOST_TRIES) {
                    $this->database->table('imports')->where('id', $import->id)->update([
                        'state' => ImportStep::ofState($import->state)?->backAt(), 'turn' => $import->turn + 1, 'updated_at' => now(),
                        'problem' => 'It was interrupted three times, and nothing was changed. Try again; a smaller file may help.',
                    ]);

                    continue;
                }
                $this->database->table('imports')->where('id', $import->id)->update(['turn' => $import->turn + 1, 'tries' => $import->tries + 1, 'alive_at' => null]);
                $this->jobs->dispatch(new ImportJob($import->id, $import->turn + 1));
            }
        });
    }
}
