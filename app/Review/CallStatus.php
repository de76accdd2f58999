<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\Closures;
use App\Figures\MeasurementFacts;
use App\Models\User;
use App\Support\PeriodDate;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Makes a person's call over a computed status, or takes it back. It holds for the figure that it was made over.
 */
final readonly class CallStatus
{
    public function __construct(private Connection $database, private Scorecard $scorecard, private Closures $closures, private PeriodDate $dates) {}

    /**
     * @param  Status|null  $status  null takes the call back
     *
     * @throws ValidationException when there is nothing to call, or the month is closed
     */
    public function __invoke(MeasurementFacts $kpi, Period $chosen, Span $span, ?Status $status, string $reason, User $user): void
    {
        $figures = $this->scorecard->assess($kpi->measurement, $chosen, $span)->figures;
        $last = $figures->due[count($figures->due) - 1] ?? null;
        $problem = match (true) {
            $kpi->measurement->definition->kind === Kind::Judged => 'The colour of this KPI is a person’s already: change it in the logbook.',
            $last === null || $figures->actual === null => 'Without a figure there is nothing to call.',
            $this->closures->locks($kpi, $last) => ucfirst($last->words()).' is closed. It can be called only after it is reopened.',
            default => null,
        };
        if ($last === null || $figures->actual === null || $problem !== null) {
            throw ValidationException::withMessages(['status' => $problem ?? '']);
        }
        $key = ['kpi_unit_id' => $kpi->id, 'period' => $this->dates->date($last), 'span' => $span->value];
        if ($status === null) {
            $this->database->table('calls')->where($key)->delete();

            return;
        }
        $this->database->table('calls')->upsert(
            [[...$key, 'status' => $status->value, 'reason' => $reason, 'over' => (string) $figures->actual, 'author_id' => $user->id, 'created_at' => now(), 'updated_at' => now()]],
            ['kpi_unit_id', 'period', 'span'],
            ['status', 'reason', 'over', 'author_id', 'updated_at'],
        );
    }
}
