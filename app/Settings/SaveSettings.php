<?php

declare(strict_types=1);

namespace App\Settings;

use App\Models\Unit;
use App\Organisation\Organisation;
use App\Organisation\UnitHistory;
use App\Organisation\WantedUnit;
use App\Support\Conflict;
use App\Support\Installation;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Sets what the organisation sets for itself. The month in which the year starts moves only while no month is closed:
 * what closed months said of a year to date would be another.
 */
final readonly class SaveSettings
{
    public function __construct(private Connection $database, private Installation $installation, private HeldSettings $held, private UnitHistory $history, private Trail $trail) {}

    /**
     * @param  int  $seen  the version that was changed
     *
     * @throws Conflict where somebody else was faster
     * @throws ValidationException
     */
    public function __invoke(OrganisationSettings $wanted, int $seen): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($wanted, $seen): void {
            $closed = $this->history->closed(array_keys((new Organisation)->units()));
            $version = $this->held->hold($seen);
            if ($wanted->yearStartMonth !== $this->installation->yearStartMonth() && $closed !== null) {
                throw ValidationException::withMessages(['yearStartMonth' => 'A month is closed, so the year starts when it starts. Reopen what is closed first.']);
            }
            $this->database->table('installation')->update([
                'year_start_month' => $wanted->yearStartMonth, 'time_zone' => $wanted->timeZone, 'currency' => $wanted->currency, 'locale' => $wanted->locale,
                'needs_second_factor' => $wanted->needsSecondFactor, 'session_hours' => $wanted->sessionHours, 'session_days' => $wanted->sessionDays,
                'trail_years' => $wanted->trailYears, 'law_years' => $wanted->lawYears, 'accent' => $wanted->accent, 'callers' => $wanted->callers,
                'kpi_defaults' => json_encode($wanted->kpi, JSON_THROW_ON_ERROR), 'version' => $version,
            ]);
            $root = Unit::query()->whereNull('parent_id')->firstOrFail();
            $stands = WantedUnit::of($root);
            $rollUp = [$wanted->rollUp['rule'], WantedUnit::plain($wanted->rollUp['green']), WantedUnit::plain($wanted->rollUp['other'])];
            if ($rollUp !== $stands->rollUp) {
                // Closed months keep the status that they had.
                $this->history->keep($root, [$root->id]);
            }
            $root->forceFill(['name' => $wanted->name, 'roll_up' => $rollUp[0], 'roll_up_green' => $rollUp[1], 'roll_up_other' => $rollUp[2]])->save();
            $this->installation->forget();
        });
    }
}
