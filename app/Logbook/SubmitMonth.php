<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\MeasurementLock;
use App\Figures\ReadingStage;
use App\Logbook\Views\Submission;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * Hands in what a person has entered of a month. What is still open stays open; what must be explained first is said.
 */
final readonly class SubmitMonth
{
    public function __construct(private Connection $database, private MeasurementLock $lock, private PeriodDate $dates) {}

    /** @param  list<MonthEntry>  $entries  of the month sheet, as this person sees it */
    public function __invoke(array $entries): Submission
    {
        $theirs = array_filter($entries, fn (MonthEntry $entry): bool => $entry->isTheirs());
        $unexplained = array_values(array_filter($theirs, fn (MonthEntry $entry): bool => $entry->isUnexplained()));
        $ready = $unexplained === [] ? array_values(array_filter($theirs, fn (MonthEntry $entry): bool => $entry->isReady())) : [];
        $submitted = $ready === [] ? 0 : $this->database->transaction(function () use ($ready): int {
            $ids = array_map(fn (MonthEntry $entry): int => $entry->kpi->id, $ready);
            $this->lock->hold($ids);

            // A figure that somebody has changed since it was looked at is not handed in.
            return $this->database->affectingStatement(
                'UPDATE readings SET state = ?, updated_at = now() FROM unnest(?::bigint[], ?::date[], ?::int[]) AS ready (kpi_unit_id, period, version)
                 WHERE readings.kpi_unit_id = ready.kpi_unit_id AND readings.period = ready.period AND readings.version = ready.version',
                [
                    ReadingStage::Submitted->value,
                    PgArray::of($ids),
                    PgArray::of(array_map(fn (MonthEntry $entry): string => $this->dates->date($entry->period), $ready)),
                    PgArray::of(array_map(fn (MonthEntry $entry): int => $entry->version, $ready)),
                ],
            );
        });

        return new Submission(
            $submitted,
            count(array_filter($theirs, fn (MonthEntry $entry): bool => $entry->isMissing())),
            array_map(fn (MonthEntry $entry): string => $entry->kpi->name, $unexplained),
        );
    }
}
