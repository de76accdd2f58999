<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\MeasurementLock;
use App\Logbook\Views\LogbookRow;
use App\Logbook\Views\Submission;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * Hands in what a person has entered of a month. What is still open stays open; what must be explained first is said.
 */
final readonly class SubmitMonth
{
    public function __construct(private Connection $database, private MeasurementLock $lock, private PeriodDate $dates) {}

    /** @param  list<LogbookRow>  $rows  of the month sheet, as this person sees it */
    public function __invoke(array $rows): Submission
    {
        $typed = array_values(array_filter($rows, fn (LogbookRow $row): bool => $row->kind !== 'formula' && $row->lock === ''));
        $open = array_filter($typed, fn (LogbookRow $row): bool => $row->typed === '');
        $unexplained = array_values(array_filter($typed, fn (LogbookRow $row): bool => $row->needsNote && $row->verdict->wantsNote && ($row->note->text ?? '') === ''));
        $ready = $unexplained === [] ? array_values(array_filter($typed, fn (LogbookRow $row): bool => $row->state === 'entered')) : [];
        $submitted = $ready === [] ? 0 : $this->database->transaction(function () use ($ready): int {
            $this->lock->hold(array_map(fn (LogbookRow $row): int => $row->id, $ready));

            // A figure that somebody has changed since it was looked at is not handed in.
            return $this->database->affectingStatement(
                "UPDATE readings SET state = 'submitted', updated_at = now() FROM unnest(?::bigint[], ?::date[], ?::int[]) AS ready (kpi_unit_id, period, version)
                 WHERE readings.kpi_unit_id = ready.kpi_unit_id AND readings.period = ready.period AND readings.version = ready.version",
                [
                    PgArray::of(array_map(fn (LogbookRow $row): int => $row->id, $ready)),
                    PgArray::of(array_map(fn (LogbookRow $row): string => $this->dates->date(Period::parse($row->period, Frequency::ofKey($row->period))), $ready)),
                    PgArray::of(array_map(fn (LogbookRow $row): int => $row->version, $ready)),
                ],
            );
        });

        return new Submission($submitted, count($open), array_map(fn (LogbookRow $row): string => $row->name, $unexplained));
    }
}
