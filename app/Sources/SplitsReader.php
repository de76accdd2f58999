<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\DefinitionRows;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Models\User;
use App\Records\RecordSets;
use App\Sources\Views\SplitPartView;
use App\Sources\Views\SplitView;
use App\Views\Shown;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\SplitPart;
use Kybernet\Core\Scorecard;

/**
 * Reads a counted figure in its parts: on a span, and beside it the span before.
 */
final readonly class SplitsReader
{
    public function __construct(private Connection $database, private MeasurementStore $kpis, private DefinitionRows $definitions, private Scorecard $scorecard, private RecordSets $sets, private SourcePolicy $policy) {}

    /** @return list<SplitView> without those by what is sensitive, which are for the owners of the set and analysts */
    public function read(Measurement $measurement, Period $month, Span $span, User $user): array
    {
        $row = $this->database->table('kpis')->where('id', $measurement->kpi_id)->first(['kind', 'splits', 'record_set_id']);
        $splits = $row === null ? [] : $this->definitions->splits($row);
        if (is_int($row?->record_set_id) && $splits !== [] && ! $this->policy->sees($user, $row->record_set_id)) {
            $set = $this->sets->of($row->record_set_id);
            $splits = array_values(array_filter($splits, fn (Split $split): bool => ! $set->isSensitive($split->of)));
        }
        if ($splits === []) {
            return [];
        }
        $before = $span === Span::Month ? $month->previous() : $month->plus(-12);
        $kpi = $this->kpis->one($measurement->id, $before->plus(-12), $month) ?? throw new \LogicException('A measurement that was found is there.');
        $actuals = $kpi->measurement->actuals;

        return $actuals instanceof RecordFigures ? array_map(fn (Split $split): SplitView => $this->view($split, $kpi, $actuals, $this->due($kpi, $month, $span), $this->due($kpi, $before, $span)), $splits) : [];
    }

    /** @return list<Period> */
    private function due(MeasurementFacts $kpi, Period $month, Span $span): array
    {
        return $this->scorecard->assess($kpi->measurement, $month, $span)->figures->due;
    }

    /**
     * @param  list<Period>  $periods
     * @param  list<Period>  $before
     */
    private function view(Split $split, MeasurementFacts $kpi, RecordFigures $figures, array $periods, array $before): SplitView
    {
        $shares = [];
        foreach ($split->parts($figures, $before) as $part) {
            $shares[$part->part === null ? '' : "={$part->part}"] = $part->share;
        }
        $share = fn (?Exact $share): ?string => $share === null ? null : (string) $share->rounded(1);
        $wanted = $split->shares === [] ? null : Exact::of(0);
        foreach ($split->shares as $target) {
            $wanted = $wanted?->plus(Exact::of($target));
        }

        return new SplitView(
            $split->code,
            $split->name,
            array_map(fn (SplitPart $part): SplitPartView => new SplitPartView(
                $part->part, Shown::of($part->actual, $kpi), $share($part->share), $share($shares[$part->part === null ? '' : "={$part->part}"] ?? null),
                $part->target === null ? null : (string) $part->target, $part->status->value,
            ), $split->parts($figures, $periods)),
            $wanted === null ? null : (string) $wanted,
            $figures->definition->take->addsUp(),
        );
    }
}
