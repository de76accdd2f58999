<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\MeasurementFacts;
use App\Figures\NoteRows;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * The periods of KPIs that end in a month, which are filled together and closed together: one line each.
 *
 * @phpstan-type Line array{MeasurementFacts, Period}
 */
final readonly class EndingPeriods
{
    public function __construct(
        private Scorecard $scorecard,
        private NoteRows $notes,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    /**
     * @param  array<MeasurementFacts>  $kpis
     * @return list<Line> in the order of the KPIs
     */
    public function lines(array $kpis, Period $month): array
    {
        $lines = [];
        foreach ($kpis as $kpi) {
            foreach ($this->scorecard->ending($kpi->measurement, $month) as $period) {
                $lines[] = [$kpi, $period];
            }
        }

        return $lines;
    }

    /**
     * @param  list<Line>  $lines
     * @return list<array{stdClass|null, stdClass|null}> version and state of the reading, and the note, line by line
     */
    public function kept(array $lines): array
    {
        if ($lines === []) {
            return [];
        }
        $ids = array_values(array_unique(array_map(fn (array $line): int => $line[0]->id, $lines)));
        $dates = array_map(fn (array $line): string => $this->dates->date($line[1]), $lines);
        $readings = [];
        foreach ($this->database->table('readings')->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($ids)])
            ->whereBetween('period', [min($dates), max($dates)])->get(['kpi_unit_id', 'period', 'version', 'state']) as $reading) {
            $readings[$reading->kpi_unit_id][$reading->period] = $reading;
        }
        $notes = $this->notes->between($ids, min($dates), max($dates));

        return array_map(fn (array $line, string $date): array => [
            $readings[$line[0]->id][$date] ?? null,
            $notes[$line[0]->id][$date] ?? null,
        ], $lines, $dates);
    }
}
