<?php

declare(strict_types=1);

namespace App\Import;

use App\Kept\RefreshJob;
use App\Models\Import;
use App\Models\User;
use App\Support\FileStep;
use App\Support\Trail;
use Illuminate\Contracts\Bus\Dispatcher;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/**
 * One step of an import, done by a worker. It may be run any number of times: only the one whose turn it is does
 * anything, and applying or undoing is one transaction with the change of state.
 */
final class ImportJob implements ShouldQueue
{
    use InteractsWithQueue;
    use Queueable;

    public const MOST_SECONDS = 900;

    public int $tries = 3;

    public int $backoff = 5;

    public int $timeout = self::MOST_SECONDS;

    public bool $failOnTimeout = true;

    public function __construct(public int $import, public int $turn) {}

    public function handle(ReadFile $read, ImportFigures $figures, Trail $trail, Dispatcher $jobs): void
    {
        $import = Import::query()->whereKey($this->import)->where('turn', $this->turn)->first();
        $step = $import === null ? null : FileStep::ofState($import->state);
        if ($import === null || $step === null) {
            return;
        }
        $user = User::query()->find($import->user_id);
        if ($user === null) {
            $this->stop($step, 'Whoever sent it has no account here any longer.');

            return;
        }
        $import->newQuery()->whereKey($import->id)->update(['alive_at' => now()]);
        $trail->actsAs($user->id);
        match ($step) {
            FileStep::Read => $read($import, $user),
            FileStep::Apply => $figures->apply($import, $user),
            FileStep::Undo => $figures->undo($import, $user),
        };
        if ($step !== FileStep::Read) {
            // Whoever looks next does not wait for thousands of figures to be judged.
            $jobs->dispatch(new RefreshJob);
        }
    }

    public function failed(?Throwable $broken): void
    {
        $step = FileStep::ofState((string) Import::query()->whereKey($this->import)->value('state'));
        if ($step !== null) {
            $this->stop($step, 'Something went wrong here while the file was handled. Nothing was changed; try again.');
        }
    }

    private function stop(FileStep $step, string $problem): void
    {
        Import::query()->whereKey($this->import)->where('turn', $this->turn)->update(['state' => $step->backAt(), 'problem' => $problem]);
    }
}
