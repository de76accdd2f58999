<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Models\Action;
use App\Models\KpiUnit;
use App\Models\User;
use App\Support\PeriodDate;
use Carbon\CarbonImmutable;
use Kybernet\Core\Calendar\Period;

/**
 * Agrees an action, or follows one up. A closed month keeps its figures and notes; what is done about them goes on.
 */
final readonly class SaveAction
{
    public function __construct(private PeriodDate $dates) {}

    public function agree(KpiUnit $measured, Period $period, ActionDraft $draft, User $user): void
    {
        Action::query()->create([
            ...$this->columns($draft, null),
            'kpi_unit_id' => $measured->id,
            'period' => $this->dates->date($period),
            'author_id' => $user->id,
        ]);
    }

    /** @throws Conflict when it is another one by now; nothing is overwritten */
    public function follow(Action $action, ActionDraft $draft): void
    {
        $written = Action::query()->whereKey($action->id)->where('version', $draft->version)
            ->update([...$this->columns($draft, $action->ended), 'version' => $draft->version + 1]);
        if ($written === 0) {
            throw new Conflict('The action was changed by somebody else in the meantime.', ['text' => $action->what, 'version' => $action->version, 'by' => 'somebody']);
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
