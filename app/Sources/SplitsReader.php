<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\DefinitionRows;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Models\User;
use App\Organisation\Organisation;
use App\Records\RecordSets;
use App\Sources\Views\SplitPartView;
use App\Sources\Views\SplitView;
use App\Support\PeriodDate;
use App\Views\Shown;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\SplitPart;
use Kybernet\Core\Records\TypedParts;
use Kybernet\Core\Scorecard;

/**
 * Reads a figure in its parts, counted or typed: on a span, and beside it the span before.
 */
final readonly class SplitsReader
{
    public function __construct(private Connection $database, private MeasurementStore $kpis, private DefinitionRows $definitions, private Scorecard $scorecard, private RecordSets $sets, private SourcePolicy $policy, private PeriodDate $dates, private Organisation $organisation) {}

    /** @return list<SplitView> without those by what is sensitive, which are for the owners of the set and analysts */
    public function read(Measurement $measurement, Period $month, Span $span, User $user): array
    {
        $row = $this->database->table('kpis')->where('id', $measurement->kpi_id)->first(['kind', 'splits', 'parts', 'record_set_id']);
        if ($row?->parts !== null) {
            return $this->typed($measurement, DefinitionRows::parts($row), $month, $span);
        }
        $splits = $row === null ? [] : $this->definitions->splits($row);
        $set = is_int($row?->record_set_id) && $splits !== [] ? $this->sets->of($row->record_set_id) : null;
        if ($set !== null && ! $this->policy->sees($user, $set->id)) {
            $splits = array_values(array_filter($splits, fn (Split $split): bool => ! $set->isSensitive($split->of)));
        }
        if ($splits === []) {
            return [];
        }
        $before = $span === Span::Month ? $month->previous() : $month->plus(-12);
        $kpi = $this->kpis->one($measurement->id, $before->plus(-12), $month) ?? throw new \LogicException('A measurement that was found is there.');
        $actuals = $kpi->measurement->actuals;

        return $actuals instanceof RecordFigures ? array_map(fn (Split $split): SplitView => $this->view($split, $kpi, $actuals, $this->due($kpi, $month, $span), $this->due($kpi, $before, $span), $set?->unitField), $splits) : [];
    }

    /** @return list<Period> */
    private function due(MeasurementFacts $kpi, Period $month, Span $span): array
    {
        return $this->scorecard->assess($kpi->measurement, $month, $span)->figures->due;
    }

    /**
     * @param  list<Period>  $periods
     * @param  list<Period>  $before
     * @param  string|null  $unitField  that names the unit of a record
     */
    private function view(Split $split, MeasurementFacts $kpi, RecordFigures $figures, array $periods, array $before, ?string $unitField): SplitView
    {
        $wanted = $split->shares === [] ? null : Exact::of(0);
        foreach ($split->shares as $target) {
            $wanted = $wanted?->plus(Exact::of($target));
        }

        return new SplitView(
            $split->code,
            $split->name,
            $this->parts($kpi, $split->parts($figures, $periods), $split->parts($figures, $before), $split->of->text === $unitField),
            $wanted === null ? null : (string) $wanted,
            $figures->definition->take->addsUp(),
        );
    }

    /**
     * @param  list<string>  $names
     * @return list<SplitView>
     */
    private function typed(Measurement $measurement, array $names, Period $month, Span $span): array
    {
        $before = $span === Span::Month ? $month->previous() : $month->plus(-12);
        $kpi = $this->kpis->one($measurement->id, $before->plus(-12), $month) ?? throw new \LogicException('A measurement that was found is there.');
        if (! $kpi->isTyped()) {
            return [];
        }
        $definition = $kpi->measurement->definition;
        $figures = array_fill_keys($names, []);
        foreach ($this->database->table('reading_parts')->where('kpi_unit_id', $measurement->id)->get() as $row) {
            if (is_string($row->part) && is_string($row->period) && is_string($row->actual)) {
                $figures[$row->part][$this->dates->period($row->period, $definition->frequency)->key()] = (string) Exact::of($row->actual);
            }
        }
        $typed = new TypedParts(array_map(fn (array $figures): Series => new Series($figures), $figures));
        $parts = fn (Period $at): array => $typed->of($this->scorecard->assess($kpi->measurement, $at, $span)->figures->reported, $definition->accumulation);

        return [new SplitView(TypedParts::CODE, 'parts', $this->parts($kpi, $parts($month), $parts($before)), null, $definition->accumulation === Accumulation::Sum || $span === Span::Month)];
    }

    /**
     * @param  list<SplitPart>  $parts
     * @param  list<SplitPart>  $before  of the span before
     * @param  bool  $isOfUnits  whether parts are codes of units
     * @return list<SplitPartView>
     */
    private function parts(MeasurementFacts $kpi, array $parts, array $before, bool $isOfUnits = false): array
    {
        // A name may be one that PHP takes for a number, and the part of what is empty has none.
        $key = fn (SplitPart $part): string => $part->part === null ? '' : "={$part->part}";
        $shares = array_combine(array_map($key, $before), array_map(fn (SplitPart $part): ?Exact => $part->share, $before));
        $share = fn (?Exact $share): ?string => $share === null ? null : (string) $share->rounded(1);

        return array_map(fn (SplitPart $part): SplitPartView => new SplitPartView(
            $isOfUnits && $part->part !== null ? $this->organisation->byCode($part->part)->name ?? $part->part : $part->part,
            Shown::of($part->actual, $kpi), $share($part->share), $share(($shares[$key($part)] ?? null) === null ? null : $part->share?->minus($shares[$key($part)])), $part->target === null ? null : (string) $part->target, $part->status->value,
        ), $parts);
    }
}
