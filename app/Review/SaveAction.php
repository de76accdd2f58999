<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementLock;
use App\Models\Action;
use App\Models\Measurement;
use App\Models\User;
use App\Support\Conflict;
use App\Support\PeriodDate;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Attention\Deadline;
use Kybernet\Core\Calendar\Period;

/**
 * Agrees an action, or follows one up. A closed month keeps its figures and notes; what is done about them goes on.
 */
final readonly class SaveAction
{
    /** The same sent again within so many minutes comes from an answer that was lost. */
    private const SENT_AGAIN = 10;

    public function __construct(private Connection $database, private MeasurementLock $lock, private PeriodDate $dates) {}

    /** @throws ValidationException when it would be due before it is agreed */
    public function agree(Measurement $measurement, Period $period, ActionDraft $draft, User $user): void
    {
        $this->mustBeAhead($draft);
        $action = ['kpi_unit_id' => $measurement->id, 'period' => $this->dates->date($period), 'what' => $draft->what, 'who' => $draft->who, 'due' => $draft->due, 'author_id' => $user->id];
        $this->database->transaction(function () use ($measurement, $draft, $action): void {
            $this->lock->hold([$measurement->id]);
            if (! Action::query()->where($action)->where('created_at', '>', CarbonImmutable::now()->subMinutes(self::SENT_AGAIN))->exists()) {
                Action::query()->create([...$this->columns($draft, null), ...$action]);
            }
        });
    }

    /** @throws Conflict when it is another one by now; nothing is overwritten */
    public function follow(Action $action, ActionDraft $draft): void
    {
        if ($draft->state === 'open' && $draft->due !== $action->due) {
            $this->mustBeAhead($draft);
        }
        $written = Action::query()->whereKey($action->id)->where('version', $draft->version)
            ->update([...$this->columns($draft, $action->ended), 'version' => $draft->version + 1]);
        if ($written === 0 && array_diff_assoc($this->columns($draft, $action->ended), $action->refresh()->only(['what', 'who', 'due', 'state', 'outcome', 'ended'])) !== []) {
            throw new Conflict('The action was changed by somebody else in the meantime.', ['text' => $action->what, 'version' => $action->version, 'by' => 'somebody']);
        }
    }

    private function mustBeAhead(ActionDraft $draft): void
    {
        if (! Deadline::mayBeAgreed($draft->due, CarbonImmutable::now('UTC')->toDateString())) {
            throw ValidationException::withMessages(['due' => 'This day is over. Give one from today on.']);
        }
    }

    /** @return array<string, string|null> */
    private function columns(ActionDraft $draft, ?string $ended): array
    {
        return [
            'what' => $draft->what,
            'who' => $draft->who,
            'due' => $draft->due,
            'state' => $draft->state,
            'outcome' => $draft->outcome,
            'ended' => $draft->state === 'open' ? null : $ended ?? CarbonImmutable::now('UTC')->toDateString(),
        ];
    }
}
