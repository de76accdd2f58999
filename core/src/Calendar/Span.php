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

    /**
     * The months of the span that ends at the chosen month, earliest first.
     *
     * @return non-empty-list<Period>
     */
    public function periods(Period $chosen, FinancialYear $year): array
    {
        $first = match ($this) {
            self::Month => $chosen,
            self::Quarter => $year->quarterStart($chosen),
            self::YearToDate => $year->start($chosen),
            self::Rolling12 => $chosen->plus(-11),
        };

        return [...$first->to($chosen->previous()), $chosen];
    }
}
