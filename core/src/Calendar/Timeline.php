<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * The periods of spans, years and look-backs. Many KPIs ask for the same few, so what was worked out is kept.
 */
final class Timeline
{
    /** @var array<string, list<Period>> */
    private array $spans = [];

    /** @var array<string, list<Period>> */
    private array $years = [];

    /** @var array<string, Period> */
    private array $latest = [];

    /** @var array<string, list<Period>> */
    private array $back = [];

    public function __construct(public readonly FinancialYear $year) {}

    /**
     * What is due of a KPI in the span: the span's periods inside its tenure.
     *
     * @return list<Period>
     */
    public function due(Frequency $frequency, Tenure $tenure, Period $chosen, Span $span): array
    {
        $periods = $this->spans[$frequency->value.$span->value.$chosen->key()] ??= $span->periods($frequency, $chosen, $this->year);

        return $this->inside($periods, $tenure);
    }

    /**
     * The periods of the financial year, inside the tenure.
     *
     * @param  Period  $financialYear  a year
     * @return list<Period>
     */
    public function yearPeriods(Frequency $frequency, Tenure $tenure, Period $financialYear): array
    {
        $periods = $this->years[$frequency->value.$financialYear->key()] ??= $this->year->endingIn(
            $frequency,
            $this->year->beginMonth($financialYear),
            $this->year->endMonth($financialYear),
        );

        return $this->inside($periods, $tenure);
    }

    /**
     * How much of the financial year is still to come, whoever measures something in it.
     *
     * @return array{int, int} its periods that have not ended by the month, and all of them
     */
    public function left(Frequency $frequency, Period $month): array
    {
        $periods = $this->yearPeriods($frequency, new Tenure, $this->year->of($month));
        $latest = $this->latest($frequency, $month);

        return [count(array_filter($periods, fn (Period $period): bool => $period->compareTo($latest) > 0)), count($periods)];
    }

    /** The latest period of the frequency that has ended by the month. */
    public function latest(Frequency $frequency, Period $month): Period
    {
        return $this->latest[$frequency->value.$month->key()] ??= $this->year->latestEnded($frequency, $month);
    }

    /**
     * So many periods up to the one given, itself included, earliest first.
     *
     * @return list<Period>
     */
    public function upTo(Period $last, int $count): array
    {
        return $this->back[$last->key().' '.$count] ??= $last->plus(1 - $count)->to($last);
    }

    /**
     * @param  list<Period>  $periods
     * @return list<Period>
     */
    private function inside(array $periods, Tenure $tenure): array
    {
        return $tenure->isOpen()
            ? $periods
            : array_values(array_filter($periods, fn (Period $period): bool => $tenure->holds($period, $this->year)));
    }
}
