<?php

declare(strict_types=1);

namespace App\Figures;

use Kybernet\Core\Calendar\Period;

/** Why a cell cannot be typed in. */
enum Lock: string
{
    case Formula = 'formula';
    case Gathered = 'gathered';

    /** a figure over it is put there by itself, with its reason */
    case Counted = 'counted';

    /** a gathered KPI has the targets of the units below */
    case TargetsBelow = 'targets-below';

    /** a judged KPI has no targets */
    case NoTargets = 'no-targets';

    /** targets are planned by the analyst */
    case Planned = 'planned';
    case Future = 'future';
    case NotTheirs = 'not-theirs';
    case NotMeasured = 'not-measured';
    case Closed = 'closed';

    /** last year's figures are changed in the grid of their own year */
    case OtherYear = 'other-year';

    /** no period of the KPI ends in the column */
    case NoPeriod = 'no-period';

    /** A sentence for the person whose entry is refused. */
    public function refusal(MeasurementFacts $kpi, Period $period): string
    {
        return match ($this) {
            self::Closed => ucfirst($period->words()).' is closed. It can change only after it is reopened.',
            self::Future => ucfirst($period->words()).' has not begun yet.',
            self::NotMeasured => "{$kpi->name} is not measured here in {$period->words()}.",
            default => "{$kpi->name} takes no such entry: {$this->words($kpi)}.",
        };
    }

    /** In the middle of a sentence. */
    public function words(MeasurementFacts $kpi): string
    {
        return match ($this) {
            self::Formula => 'worked out: '.($kpi->measurement->definition->formula->text ?? ''),
            self::Gathered => 'gathered from the units below',
            self::Counted => 'counted from records',
            self::TargetsBelow => 'the targets are those of the units below',
            self::NoTargets => 'a judged KPI has no targets',
            self::Planned => 'targets are planned by the analyst',
            self::Future => 'not begun yet',
            self::NotTheirs => 'not yours to enter',
            self::NotMeasured => 'not measured here then',
            self::Closed => 'closed',
            self::OtherYear => 'changed in the grid of its own year',
            self::NoPeriod => 'no period ends there',
        };
    }
}
