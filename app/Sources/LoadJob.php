<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordLoad;
use App\Support\FileStep;
use App\Support\Trail;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\InteractsWithQueue;
use Throwable;

/**
 * One step of a load, done by a worker. It may be run any number of times: only the one whose turn it is does anything,
 * and bringing in or taking back is one transaction with the change of state.
 */
final class LoadJob implements ShouldQueue
{
    use InteractsWithQueue;
    use Queueable;

    public const MOST_SECONDS = 3_600;

    public int $tries = 3;

    public int $backoff = 5;

    public int $timeout = self::MOST_SECONDS;

    public bool $failOnTimeout = true;

    public function __construct(public int $load, public int $turn) {}

    public function handle(StageFile $stage, BringIn $bring, Loads $loads, Trail $trail): void
    {
        $load = RecordLoad::query()->whereKey($this->load)->where('turn', $this->turn)->first();
        $step = $load === null ? null : FileStep::ofState($load->state);
        if ($load === null || $step === null) {
            return;
        }
        $load->newQuery()->whereKey($load->id)->update(['alive_at' => now()]);
        $trail->actsAs($load->user_id);
        match ($step) {
            FileStep::Read => $stage($load),
            FileStep::Apply => $bring->apply($load),
            FileStep::Undo => $bring->undo($load),
        };
        if ($step === FileStep::Read && $load->is_unattended) {
            $loads->goOn($load->id);
        }
    }

    public function failed(?Throwable $broken): void
    {
        $step = FileStep::ofState(RecordLoad::query()->find($this->load)->state ?? '');
        if ($step !== null) {
            RecordLoad::query()->whereKey($this->load)->where('turn', $this->turn)
                ->update(['state' => $step->backAt(), 'problem' => 'Something went wrong here while the records were handled. Nothing was changed; try again.']);
        }
    }
}
