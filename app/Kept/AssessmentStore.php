<?php

declare(strict_types=1);

namespace App\Kept;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementPlace;
use App\Figures\MeasurementStore;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\QueryException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * Keeps what was judged. What is not kept, or does not hold any longer because something it follows from changed, is
 * judged when it is asked for, and kept from then on.
 *
 * Nobody waits for anybody. Each kept row says which transactions were over when its figures began to be read (`seen`
 * is the oldest that was not). Triggers mark what a change touches with the transaction of the change, and a row holds
 * unless a mark of `seen` or later touches it. Keeping is best effort: where it would have to wait, it is left.
 */
final readonly class AssessmentStore
{
    /** So many measurements are judged at once, whatever the size of the organisation: it bounds the memory. */
    private const BATCH = 400;

    /** So many months are judged ahead of being asked for: a year, and the month before it. */
    private const REFRESHED = 13;

    /** What a kept row must pass: made by this version of the rules, and touched by no change since. */
    private const HOLDS = 'kept.maker = ? AND kept.seen > coalesce((SELECT max(changed) FROM assessment_marks WHERE kpi_unit_id = 0), -1) AND NOT EXISTS (
        SELECT FROM assessment_marks mark WHERE mark.kpi_unit_id = kept.kpi_unit_id AND mark.changed >= kept.seen AND mark.first <= kept.month)';

    public function __construct(
        private Connection $database,
        private MeasurementStore $kpis,
        private Scorecard $scorecard,
        private PeriodDate $dates,
        private Maker $maker,
    ) {}

    /**
     * How measurements stand at some months, on every span.
     *
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return array<int, array<string, AssessedMonth>> by measurement and month
     */
    public function months(array $measurements, array $months): array
    {
        $known = [];
        // Of all that can be kept there are few that differ; one object of each is enough.
        $distinct = [];
        foreach ($this->keptMonths($measurements, $months) as $row) {
            $month = substr($row->month, 0, 7);
            foreach (explode(' ', $row->kept) as $kept) {
                $known[(int) substr($kept, 6)][$month] = $distinct[substr($kept, 0, 6)] ??= new AssessedMonth(substr($kept, 0, 4), (int) $kept[4], (int) $kept[5]);
            }
        }

        return $this->complete($known, $measurements, $months, $this->judgeMonths(...));
    }

    /**
     * How measurements stand at some months on a span, counted for each unit and weight: what is to be rolled up over many
     * months and units need not be carried one by one.
     *
     * @param  list<MeasurementPlace>  $kpis
     * @param  list<Period>  $months
     * @return array<string, CountedMonth> by month, the oldest first
     */
    public function counted(array $kpis, array $months, Span $span): array
    {
        $ids = array_map(fn (MeasurementPlace $kpi): int => $kpi->id, $kpis);
        $alike = [];
        $first = [];
        foreach ($kpis as $at => $kpi) {
            $alike[$kpi->id] = $first["{$kpi->unitId} {$kpi->weight}"] ??= $at;
        }
        $counted = [];
        $known = [];
        foreach ($this->countedMonths($ids, $months, $span) as $row) {
            $month = substr($row->month, 0, 7);
            $status = AssessedMonth::read($row->letter);
            $found = explode(' ', $row->ids);
            $known[$month] = ($known[$month] ?? 0) + count($found);
            $together = [];
            foreach ($found as $id) {
                $together[$alike[(int) $id]][] = (int) $id;
            }
            $counted[$month] ??= new CountedMonth;
            foreach ($together as $at => $same) {
                $counted[$month]->add($kpis[$at], $same, $status, $row->owed, $row->arrived);
            }
        }
        $counted = array_filter($counted, fn (string $month): bool => $known[$month] === count($kpis), ARRAY_FILTER_USE_KEY);
        $rest = array_values(array_filter($months, fn (Period $month): bool => ! isset($counted[$month->key()])));
        $judged = $rest === [] ? [] : $this->months($ids, $rest);
        foreach ($rest as $month) {
            $counted[$month->key()] = new CountedMonth;
            foreach ($kpis as $kpi) {
                $at = $judged[$kpi->id][$month->key()];
                $counted[$month->key()]->add($kpi, [$kpi->id], $at->status($span), $at->owed, $at->arrived);
            }
        }
        ksort($counted);

        return $counted;
    }

    /**
     * What was judged of measurements at some months on a span.
     *
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return array<int, array<string, AssessedSpan>> by measurement and month
     */
    public function spans(array $measurements, array $months, Span $span): array
    {
        $known = [];
        foreach ($this->keptSpans($measurements, $months, $span) as $row) {
            $known[$row->kpi_unit_id][substr($row->month, 0, 7)] = SpanRecord::read($row->record);
        }

        return $this->complete($known, $measurements, $months, fn (array $wanted): array => $this->judgeSpans($wanted, $span));
    }

    /**
     * The figures of many at some months on a span, without what else was judged of them.
     *
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return array<int, array<string, KeptFigure>> by measurement and month
     */
    public function figures(array $measurements, array $months, Span $span): array
    {
        $known = [];
        /** @var list<object{kpi_unit_id: int, month: string, figures: string}> $rows */
        $rows = $this->database->select(
            'SELECT kpi_unit_id, month, '.KeptFigure::OF_RECORD.' AS figures FROM assessed_spans kept WHERE kpi_unit_id = ANY(?::bigint[]) AND month = ANY(?::date[]) AND span = ? AND '.self::HOLDS,
            [PgArray::of($measurements), PgArray::of(array_map(Month::date(...), $months)), $span->value, $this->maker->version],
        );
        foreach ($rows as $row) {
            $known[$row->kpi_unit_id][substr($row->month, 0, 7)] = KeptFigure::read($row->figures);
        }

        return $this->complete($known, $measurements, $months, fn (array $wanted): array => array_map(
            fn (array $judged): array => array_map(KeptFigure::of(...), $judged),
            $this->judgeSpans($wanted, $span),
        ));
    }

    /**
     * Why measurements deserve attention, in short.
     *
     * @param  list<int>  $measurements
     * @return array<int, array{string, string, int, bool}> by measurement: status, codes of the reasons, points before the weight, whether it is good news
     */
    public function reasons(array $measurements, Period $month, Span $span): array
    {
        $known = [];
        $distinct = [];
        $all = $this->database->selectOne(
            "SELECT string_agg(concat_ws('/', kpi_unit_id, status, reasons, points, good::int), E'\n') AS kept FROM assessed_spans kept
             WHERE kpi_unit_id = ANY(?::bigint[]) AND month = ? AND span = ? AND ".self::HOLDS,
            [PgArray::of($measurements), Month::date($month), $span->value, $this->maker->version],
        );
        foreach ($all->kept === null ? [] : explode("\n", $all->kept) as $kept) {
            [$id, $rest] = explode('/', $kept, 2);
            if (! isset($distinct[$rest])) {
                [$status, $reasons, $points, $good] = explode('/', $rest);
                $distinct[$rest] = [$status, $reasons, (int) $points, $good === '1'];
            }
            $known[(int) $id][$month->key()] = $distinct[$rest];
        }
        $complete = $this->complete($known, $measurements, [$month], fn (array $wanted): array => array_map(
            fn (array $months): array => array_map(fn (AssessedSpan $each): array => [$each->status, $each->codes(), $each->points(), $each->goodNews !== null], $months),
            $this->judgeSpans($wanted, $span),
        ));

        return array_map(fn (array $months): array => $months[$month->key()], $complete);
    }

    /** Judges what is not kept yet of the latest year, so that the first to look does not have to wait for it. */
    public function refresh(): void
    {
        $latest = $this->database->table('readings')->whereNotNull('actual')->max('period');
        if (! is_string($latest)) {
            return;
        }
        $month = Month::ofDate($latest);
        $months = $month->plus(1 - self::REFRESHED)->to($month);
        foreach (array_chunk(array_values($this->database->table('kpi_unit')->orderBy('id')->pluck('id')->all()), self::BATCH) as $batch) {
            $this->months($batch, $months);
            foreach (Span::cases() as $span) {
                $this->spans($batch, [$month], $span);
            }
        }
    }

    /**
     * Judges again what is kept, and puts right what differs.
     *
     * @return array{int, int} how many were looked at, and how many were wrong
     */
    public function check(): array
    {
        $looked = 0;
        $wrong = [];
        $ids = array_values($this->database->table('assessed_months')->union($this->database->table('assessed_spans')->select('kpi_unit_id'))->select('kpi_unit_id')->pluck('kpi_unit_id')->all());
        foreach (array_chunk($ids, self::BATCH) as $batch) {
            foreach ([null, ...Span::cases()] as $span) {
                $rows = $this->database->table($span === null ? 'assessed_months as kept' : 'assessed_spans as kept')->whereIn('kpi_unit_id', $batch)
                    ->whereRaw(self::HOLDS, [$this->maker->version])
                    ->when($span !== null, fn (Builder $query): Builder => $query->where('span', $span?->value))->get();
                $wanted = [];
                foreach ($rows as $row) {
                    $wanted[$row->kpi_unit_id][] = Month::ofDate($row->month);
                }
                $looked += count($rows);
                $fresh = match (true) {
                    $wanted === [] => [],
                    $span === null => $this->judgeMonths($wanted),
                    default => $this->judgeSpans($wanted, $span),
                };
                foreach ($rows as $row) {
                    if (! $this->isSame($row, $fresh[$row->kpi_unit_id][substr($row->month, 0, 7)])) {
                        $wrong[] = $row->kpi_unit_id;
                    }
                }
            }
        }
        foreach (['assessed_months', 'assessed_spans'] as $table) {
            $this->database->table($table)->whereIn('kpi_unit_id', array_unique($wrong))->delete();
        }

        return [$looked, count($wrong)];
    }

    private function isSame(stdClass $row, AssessedMonth|AssessedSpan $fresh): bool
    {
        return $fresh instanceof AssessedMonth
            ? [$row->statuses, $row->owed, $row->arrived] === [$fresh->statuses, $fresh->owed, $fresh->arrived]
            : [$row->status, $row->reasons, $row->points, $row->good, SpanRecord::write(SpanRecord::read($row->record))]
                === [$fresh->status, $fresh->codes(), $fresh->points(), $fresh->goodNews !== null, SpanRecord::write($fresh)];
    }

    /**
     * One row a month with all measurements as one text: far less to carry than a row for each.
     *
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return iterable<stdClass>
     */
    private function keptMonths(array $measurements, array $months): iterable
    {
        return $this->database->select(
            "SELECT month, string_agg(statuses || owed || arrived || kpi_unit_id, ' ') AS kept
             FROM assessed_months kept WHERE kpi_unit_id = ANY(?::bigint[]) AND month = ANY(?::date[]) AND ".self::HOLDS.' GROUP BY month',
            [PgArray::of($measurements), PgArray::of(array_map(Month::date(...), $months)), $this->maker->version],
        );
    }

    /**
     * A row for each month and way to stand there, with the measurements that stand so.
     *
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return iterable<stdClass>
     */
    private function countedMonths(array $measurements, array $months, Span $span): iterable
    {
        return $this->database->select(
            "SELECT month, substr(statuses, ?, 1) AS letter, owed, arrived, string_agg(kpi_unit_id::text, ' ') AS ids
             FROM assessed_months kept WHERE kpi_unit_id = ANY(?::bigint[]) AND month = ANY(?::date[]) AND ".self::HOLDS.' GROUP BY month, letter, owed, arrived',
            [AssessedMonth::place($span) + 1, PgArray::of($measurements), PgArray::of(array_map(Month::date(...), $months)), $this->maker->version],
        );
    }

    /**
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @return iterable<stdClass>
     */
    private function keptSpans(array $measurements, array $months, Span $span): iterable
    {
        return $this->database->select(
            'SELECT kpi_unit_id, month, record FROM assessed_spans kept WHERE kpi_unit_id = ANY(?::bigint[]) AND month = ANY(?::date[]) AND span = ? AND '.self::HOLDS,
            [PgArray::of($measurements), PgArray::of(array_map(Month::date(...), $months)), $span->value, $this->maker->version],
        );
    }

    /**
     * What is known, with what had to be judged.
     *
     * @template Judged
     *
     * @param  array<int, array<string, Judged>>  $known
     * @param  list<int>  $measurements
     * @param  list<Period>  $months
     * @param  \Closure(array<int, non-empty-list<Period>>): array<int, array<string, Judged>>  $judge  judges, and keeps, months of some measurements
     * @return array<int, array<string, Judged>>
     */
    private function complete(array $known, array $measurements, array $months, \Closure $judge): array
    {
        $missing = [];
        foreach ($measurements as $id) {
            if (count($known[$id] ?? []) < count($months)) {
                $wanted = array_values(array_filter($months, fn (Period $month): bool => ! isset($known[$id][$month->key()])));
                if ($wanted !== []) {
                    $missing[$id] = $wanted;
                }
            }
        }
        foreach (array_chunk($missing, self::BATCH, true) as $batch) {
            foreach ($judge($batch) as $id => $judged) {
                $known[$id] = ($known[$id] ?? []) + $judged;
            }
        }

        return $known;
    }

    /**
     * @param  array<int, non-empty-list<Period>>  $wanted  months by measurement
     * @return array<int, array<string, AssessedMonth>>
     */
    private function judgeMonths(array $wanted): array
    {
        $seen = $this->seen();
        $facts = $this->facts($wanted);
        $judged = [];
        $rows = [[], [], [], [], []];
        foreach ($wanted as $id => $months) {
            $measurement = $facts[$id]->measurement;
            foreach ($months as $month) {
                $statuses = [];
                foreach (Span::cases() as $span) {
                    $statuses[$span->value] = $this->scorecard->status($measurement, $month, $span);
                }
                $owed = $this->scorecard->owed($measurement, $month);
                $judged[$id][$month->key()] = $each = new AssessedMonth(AssessedMonth::letters($statuses), $owed->readings, $owed->arrived);
                foreach ([$id, Month::date($month), $each->statuses, $each->owed, $each->arrived] as $at => $value) {
                    $rows[$at][] = $value;
                }
            }
        }
        $this->keep($seen, 'INSERT INTO assessed_months (maker, seen, kpi_unit_id, month, statuses, owed, arrived)
            SELECT ?, ?, id, month, statuses, owed, arrived
            FROM unnest(?::bigint[], ?::date[], ?::text[], ?::int[], ?::int[]) AS judged (id, month, statuses, owed, arrived) ORDER BY id, month
            ON CONFLICT (kpi_unit_id, month) DO UPDATE SET maker = excluded.maker, seen = excluded.seen, statuses = excluded.statuses, owed = excluded.owed, arrived = excluded.arrived
            WHERE assessed_months.seen < excluded.seen OR assessed_months.maker <> excluded.maker', $rows);

        return $judged;
    }

    /**
     * @param  array<int, non-empty-list<Period>>  $wanted  months by measurement
     * @return array<int, array<string, AssessedSpan>>
     */
    private function judgeSpans(array $wanted, Span $span): array
    {
        $seen = $this->seen();
        $facts = $this->facts($wanted);
        $noted = $this->noted(array_keys($wanted));
        $judged = [];
        $rows = [[], [], [], [], [], [], []];
        foreach ($wanted as $id => $months) {
            foreach ($months as $month) {
                $judged[$id][$month->key()] = $each = $this->span($facts[$id], $month, $span, $noted[$id] ?? []);
                foreach ([$id, Month::date($month), $each->status, $each->codes(), $each->points(), (int) ($each->goodNews !== null), SpanRecord::write($each)] as $at => $value) {
                    $rows[$at][] = $value;
                }
            }
        }
        $this->keep($seen, "INSERT INTO assessed_spans (maker, seen, kpi_unit_id, month, span, status, reasons, points, good, record)
            SELECT ?, ?, id, month, '{$span->value}', status, reasons, points, good = 1, record
            FROM unnest(?::bigint[], ?::date[], ?::text[], ?::text[], ?::int[], ?::int[], ?::jsonb[]) AS judged (id, month, status, reasons, points, good, record) ORDER BY id, month
            ON CONFLICT (kpi_unit_id, month, span) DO UPDATE SET maker = excluded.maker, seen = excluded.seen, status = excluded.status, reasons = excluded.reasons,
                points = excluded.points, good = excluded.good, record = excluded.record
            WHERE assessed_spans.seen < excluded.seen OR assessed_spans.maker <> excluded.maker", $rows);

        return $judged;
    }

    /** @param  array<string, true>  $noted  dates of periods with a note */
    private function span(MeasurementFacts $kpi, Period $month, Span $span, array $noted): AssessedSpan
    {
        $measurement = $kpi->measurement;
        $assessed = $this->scorecard->assess($measurement, $month, $span);
        $due = $this->scorecard->latest($measurement, $month);
        $latest = $this->scorecard->timeline->latest($measurement->definition->frequency, $month);

        return AssessedSpan::of(
            $kpi,
            $assessed,
            $this->scorecard->course($measurement, $month, $span, $assessed),
            $this->scorecard->track($measurement, $month),
            $span === Span::Month ? $assessed->status : $this->scorecard->status($measurement, $month, Span::Month),
            $latest,
            $due !== null,
            $due === null ? null : $this->scorecard->exceptions(
                $measurement,
                $month,
                $span,
                $assessed,
                $this->scorecard->past($measurement, $month),
                $this->scorecard->projection($measurement, $month),
                $this->scorecard->control($measurement, $month),
                isset($noted[$this->dates->date($due)]),
            ),
        );
    }

    /**
     * @param  array<int, non-empty-list<Period>>  $wanted  months by measurement
     * @return array<int, MeasurementFacts>
     */
    private function facts(array $wanted): array
    {
        $months = array_merge(...array_values($wanted));
        usort($months, fn (Period $one, Period $other): int => $one->compareTo($other));
        $last = $months[count($months) - 1];

        // A rolling year reaches back 11 months, and a year target is made of all its months.
        return $this->kpis->whole(array_keys($wanted), $months[0]->plus(-11), $this->scorecard->year->months($last)[11]);
    }

    /**
     * @param  list<int>  $measurements
     * @return array<int, array<string, true>> by measurement and date
     */
    private function noted(array $measurements): array
    {
        $noted = [];
        foreach ($this->database->table('notes')->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($measurements)])->get(['kpi_unit_id', 'period']) as $note) {
            $noted[$note->kpi_unit_id][$note->period] = true;
        }

        return $noted;
    }

    /** The oldest transaction that is still on its way: what came before it is in the figures that are read from now on. */
    private function seen(): int
    {
        return (int) $this->database->scalar('SELECT pg_snapshot_xmin(pg_current_snapshot())::text');
    }

    /**
     * Whoever asked has their answer whether it is kept or not, so nothing is waited for and nothing goes wrong here.
     *
     * @param  list<list<int|string>>  $columns
     */
    private function keep(int $seen, string $statement, array $columns): void
    {
        try {
            $this->database->transaction(function () use ($seen, $statement, $columns): void {
                $this->database->statement("SET LOCAL lock_timeout = '100ms'");
                if ($this->database->table('assessment_floor')->where('swept', '<', $seen)->lock('FOR SHARE NOWAIT')->exists()) {
                    $this->database->affectingStatement($statement, [$this->maker->version, $seen, ...array_map(PgArray::of(...), $columns)]);
                }
                // Inside of a reader's own transaction the short wait would outlive this one, and end what is read next.
                $this->database->statement('SET LOCAL lock_timeout TO DEFAULT');
            });
        } catch (QueryException) {
            // Somebody is keeping the same, or it is being swept: it is judged again when it is next asked for.
        }
    }

    /**
     * Takes away what does not hold any longer, and the marks that said so. Who is keeping just now is waited for, and
     * what was seen before is not kept any more: no row can come back from before its mark.
     */
    public function sweep(): void
    {
        $this->database->transaction(function (): void {
            $this->database->table('assessment_floor')->lockForUpdate()->first();
            $over = $this->seen() - 1;
            $this->database->table('assessment_floor')->update(['swept' => $over]);
            foreach (['assessed_months', 'assessed_spans'] as $table) {
                $this->database->delete("DELETE FROM {$table} kept WHERE NOT (".self::HOLDS.') OR NOT EXISTS (SELECT FROM kpi_unit WHERE kpi_unit.id = kept.kpi_unit_id)', [$this->maker->version]);
            }
            $this->database->table('assessment_marks')->where('changed', '<=', $over)->delete();
        });
    }

    /** Takes away what another version of the rules has made, and everything where the database was brought here from another server, which counts its transactions anew. */
    public function renew(): void
    {
        $next = (int) $this->database->scalar('SELECT pg_snapshot_xmax(pg_current_snapshot())::text');
        $isForeign = $this->database->table('assessment_floor')->where('swept', '>', $next)->exists() || $this->database->table('assessment_marks')->where('changed', '>', $next)->exists()
            || $this->database->table('assessed_months')->where('seen', '>', $next)->exists() || $this->database->table('assessed_spans')->where('seen', '>', $next)->exists();
        foreach (['assessed_months', 'assessed_spans'] as $table) {
            $this->database->table($table)->when(! $isForeign, fn (Builder $query): Builder => $query->where('maker', '<>', $this->maker->version))->delete();
        }
        if ($isForeign) {
            $this->database->table('assessment_marks')->delete();
            $this->database->table('assessment_floor')->update(['swept' => 0]);
        }
    }
}
