<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;

/**
 * A KPI in one unit as the screens need it: what it is called beside what the rules judge.
 */
final readonly class KpiFacts
{
    public function __construct(
        public int $id,
        public int $unitId,
        public string $code,
        public string $name,
        public string $purpose,
        public string $level,
        public ?string $theme,
        public bool $scaled,
        public BigDecimal $weight,
        public ?int $ownerId,
        public ?string $owner,
        public Measurement $measurement,
    ) {}

    /** Whether its figure of a month is typed in the month sheet. */
    public function isTyped(Period $month, FinancialYear $year): bool
    {
        return $this->measurement->definition->kind === Kind::Entered
            && $this->measurement->definition->frequency === Frequency::Month
            && $this->measurement->actuals instanceof Series
            && $this->measurement->tenure->holds($month, $year);
    }

    /** A figure as it is shown; the scores behind a judged KPI's colours are none. */
    public function shows(?Exact $figure): ?Exact
    {
        return $this->measurement->definition->kind === Kind::Judged ? null : $figure;
    }
}
