<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * How far back from a chosen month a figure is gathered.
 */
enum Span: string
{
    case Month = 'month';
    case Quarter = 'quarter';
    case YearToDate = 'yearToDate';
    case Rolling12 = 'rolling12';

    /** The first month of the span that ends at the chosen month. */
    public function firstMonth(Period $chosen, FinancialYear $year): Period
    {
        return match ($this) {
            self::Month => $chosen,
            self::Quarter => $year->quarterStart($chosen),
            self::YearToDate => $year->start($chosen),
            self::Rolling12 => $chosen->plus(-11),
        };
    }

    /**
     * The periods that belong to the span, earliest first: those that end in it. The span of a month alone carries the
     * latest ended period of a coarser KPI forward, so that it is never empty.
     *
     * @return list<Period>
     */
    public function periods(Frequency $frequency, Period $chosen, FinancialYear $year): array
    {
        $ending = $year->endingIn($frequency, $this->firstMonth($chosen, $year), $chosen);

        return $ending === [] && $this === self::Month ? [$year->latestEnded($frequency, $chosen)] : $ending;
    }

    /** As it is said in a sentence. */
    public function words(): string
    {
        return match ($this) {
            self::Month => 'month',
            self::Quarter => 'quarter to date',
            self::YearToDate => 'year to date',
            self::Rolling12 => 'last 12 months',
        };
    }
}
