<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Attention\Ranking;
use Kybernet\Core\Attention\Reason;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Records\SplitPart;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Tally;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\Range;
use Kybernet\Core\Trend\Signal;
use Kybernet\Core\Trend\Trend;

/**
 * Writes what a workbook was judged to be as JSON, piece by piece, or the chosen span as a table. The same workbook
 * gives the same bytes.
 *
 * @phpstan-type Members array<string, mixed>
 */
final readonly class AssessmentWriter
{
    private const COLUMNS = [
        'kpi', 'unit', 'span', 'from', 'to', 'expected', 'reported', 'missing', 'compared', 'comparedPrior', 'actual', 'target', 'targetFrom', 'low',
        'high', 'prior', 'variance', 'variancePercent', 'change', 'changePercent', 'step', 'stepPercent', 'effect', 'priorEffect', 'status', 'reason',
    ];

    /** @param  bool  $withSplits  whether each assessment has its parts */
    public function __construct(private Workbook $workbook, private Period $chosen, private Span $span, private bool $withSplits = false) {}

    /** @return iterable<string> the JSON text in pieces */
    public function json(): iterable
    {
        $assessor = new Assessor($this->workbook, $this->chosen, $this->span, $this->withSplits);
        $statuses = [];
        $points = [];
        $exceptions = [];
        $goodNews = [];
        yield '{"format":"kybernet-assessment","version":1,"period":'.self::encode($this->chosen->key()).',"assessments":[';
        $separator = "\n";
        foreach ($assessor->assessments() as $assessed) {
            foreach ($assessed->spans as $span => $assessment) {
                ($statuses[$span][$assessed->unit] ??= new Tally)->add($assessment->status, $assessed->weight);
            }
            $found = $assessed->exceptions;
            if ($found !== null && $found->reasons !== []) {
                $points[] = $found->points($assessed->weight);
                $exceptions[] = [$assessed->kpi, $assessed->unit, $found->reasons];
            }
            if ($found?->goodNews !== null) {
                $goodNews[] = ['kpi' => $assessed->kpi, 'unit' => $assessed->unit, 'text' => $found->goodNews];
            }
            yield $separator.self::encode(self::assessed($assessed));
            $separator = ",\n";
        }
        yield "\n],\"rollUps\":[";
        $separator = "\n";
        foreach ($assessor->rollUps($statuses) as [$unit, $span, $rollUp]) {
            yield $separator.self::encode(self::rollUp($unit, $span, $rollUp));
            $separator = ",\n";
        }
        $ranked = Ranking::of($points);
        yield "\n],\"exceptions\":[".self::lines(array_map(fn (int $index): array => [
            'kpi' => $exceptions[$index][0],
            'unit' => $exceptions[$index][1],
            'points' => self::number($points[$index]),
            'reasons' => array_map(fn (Reason $reason): array => ['code' => $reason->code->value, 'points' => $reason->points, 'text' => $reason->text], $exceptions[$index][2]),
        ], array_keys($ranked))).'],"goodNews":['.self::lines($goodNews)."]}\n";
    }

    /** @return iterable<list<string>> the head and a row for each measurement, on the chosen span */
    public function table(): iterable
    {
        yield self::COLUMNS;
        foreach ((new Assessor($this->workbook, $this->chosen, $this->span))->assessments() as $assessed) {
            $span = self::span($assessed, $this->span->value);
            $periods = $assessed->spans[$this->span->value]->figures->due;
            $cells = [
                ...$span,
                'kpi' => $assessed->kpi,
                'unit' => $assessed->unit,
                'span' => $this->span->value,
                'from' => $periods === [] ? null : $periods[0]->key(),
                'to' => $periods === [] ? null : $periods[count($periods) - 1]->key(),
                'missing' => implode(' ', array_map(fn (Period $period): string => $period->key(), $assessed->spans[$this->span->value]->figures->missing())),
            ];
            yield array_map(fn (string $column): string => is_scalar($cells[$column] ?? null) ? (string) $cells[$column] : '', self::COLUMNS);
        }
    }

    /** @return Members */
    private static function assessed(Assessed $assessed): array
    {
        return [
            'kpi' => $assessed->kpi,
            'unit' => $assessed->unit,
            'spans' => array_combine(array_keys($assessed->spans), array_map(fn (string $span): array => self::span($assessed, $span), array_keys($assessed->spans))),
            'trend' => self::trend($assessed->trend),
            'control' => self::control($assessed->control),
            'projection' => self::projection($assessed->projection, $assessed->range),
            'streak' => self::streak($assessed->streak),
            ...($assessed->splits === null ? [] : ['splits' => self::splits($assessed->splits)]),
        ];
    }

    /**
     * @param  array<string, array<string, list<SplitPart>>>  $splits
     * @return list<Members>
     */
    private static function splits(array $splits): array
    {
        $part = fn (SplitPart $part): array => [
            'part' => $part->part, 'actual' => self::decimal($part->actual), 'share' => self::decimal($part->share),
            'target' => $part->target === null ? null : self::decimal(Exact::of($part->target)), 'status' => $part->status->value,
        ];

        return array_map(fn (string $split, array $spans): array => ['split' => $split, 'spans' => array_map(fn (array $parts): array => array_map($part, $parts), $spans)], array_map(strval(...), array_keys($splits)), $splits);
    }

    /** @return Members */
    private static function span(Assessed $assessed, string $span): array
    {
        [$assessment, $course, $kind] = [$assessed->spans[$span], $assessed->courses[$span], $assessed->kind];
        $figures = $assessment->figures;
        $due = $figures->due;
        // The scores behind a judged KPI's colours are no figures to show.
        $shown = fn (?Exact $figure): ?string => $kind === Kind::Judged ? null : self::decimal($figure);

        return [
            'periods' => $due === [] ? null : ['from' => $due[0]->key(), 'to' => $due[count($due) - 1]->key()],
            'expected' => count($figures->expected),
            'reported' => count($figures->reported),
            'missing' => array_map(fn (Period $period): string => $period->key(), $figures->missing()),
            'compared' => $figures->compared,
            'comparedPrior' => $kind === Kind::Judged ? 0 : $assessment->prior->compared,
            'actual' => $shown($figures->actual),
            'target' => self::decimal($figures->goal?->target),
            'targetFrom' => $figures->goal?->from->value,
            'low' => self::decimal($figures->goal?->band?->low),
            'high' => self::decimal($figures->goal?->band?->high),
            'prior' => $shown($assessment->prior->figure),
            'variance' => self::decimal($assessment->variance?->difference),
            'variancePercent' => self::decimal($assessment->variance?->percent),
            'change' => self::decimal($assessment->change?->difference),
            'changePercent' => self::decimal($assessment->change?->percent),
            'step' => self::decimal($assessment->step?->difference),
            'stepPercent' => self::decimal($assessment->step?->percent),
            'effect' => $assessment->variance?->effect?->value,
            'priorEffect' => $assessment->change?->effect?->value,
            'status' => $assessment->status->value,
            'reason' => $assessment->reason(),
            'course' => $course === null ? null : ['now' => $course->now, 'before' => $course->before, 'prior' => $course->prior, 'target' => $course->target],
            ...($assessment->call === null ? [] : ['computed' => $assessment->computed->value]),
            ...($assessment->isStretched() ? ['stretch' => true] : []),
            ...($assessment->missingUnits() === [] ? [] : ['missingUnits' => $assessment->missingUnits()]),
        ];
    }

    /** @return Members|null */
    private static function trend(?Trend $trend): ?array
    {
        return $trend === null ? null : [
            'n' => $trend->line->n,
            'slope' => $trend->line->slope,
            'intercept' => $trend->line->intercept,
            'rSquared' => $trend->line->rSquared,
            'slopeError' => $trend->line->slopeError,
            't' => $trend->line->t,
            'p' => $trend->line->p,
            'direction' => $trend->direction->value,
            'meaning' => $trend->meaning?->value,
        ];
    }

    /** @return Members|null */
    private static function control(?ControlChart $control): ?array
    {
        return $control === null ? null : [
            'centre' => $control->centre,
            'lower' => $control->lower,
            'upper' => $control->upper,
            'signals' => array_map(fn (Signal $signal): array => ['period' => $signal->period->key(), 'rule' => $signal->rule->value, 'side' => $signal->side->value], $control->signals),
        ];
    }

    /** @return Members|null */
    private static function projection(?Projection $projection, ?Range $range): ?array
    {
        return $projection === null ? null : [
            'method' => $projection->method->value,
            'value' => self::decimal($projection->value),
            'yearTarget' => self::decimal($projection->yearTarget),
            'status' => $projection->status->value,
            'progressPercent' => self::decimal($projection->progressPercent),
            'elapsedPercent' => self::decimal($projection->elapsedPercent),
            'requiredPerPeriod' => self::decimal($projection->requiredPerPeriod),
            'low' => $range?->low,
            'high' => $range?->high,
            'chance' => $range?->chance,
        ];
    }

    /** @return Members|null */
    private static function streak(?Streak $streak): ?array
    {
        return $streak === null ? null : ['status' => $streak->status->value, 'length' => $streak->length];
    }

    /** @return Members */
    private static function rollUp(string $unit, Span $span, RollUp $rollUp): array
    {
        return [
            'unit' => $unit,
            'span' => $span->value,
            'status' => $rollUp->status->value,
            'score' => $rollUp->score,
            'coverage' => $rollUp->coverage,
            'counts' => [
                'green' => $rollUp->counts->green,
                'amber' => $rollUp->counts->amber,
                'red' => $rollUp->counts->red,
                'notJudged' => $rollUp->counts->notJudged,
                'noData' => $rollUp->counts->noData,
            ],
        ];
    }

    private static function decimal(?Exact $figure): ?string
    {
        return $figure === null ? null : (string) $figure;
    }

    private static function number(BigDecimal $number): int|float
    {
        return $number->hasNonZeroFractionalPart() ? $number->toFloat() : $number->toBigInteger()->toInt();
    }

    /** @param  list<Members>  $rows */
    private static function lines(array $rows): string
    {
        return $rows === [] ? '' : "\n".implode(",\n", array_map(self::encode(...), $rows))."\n";
    }

    private static function encode(mixed $value): string
    {
        return json_encode($value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }
}
