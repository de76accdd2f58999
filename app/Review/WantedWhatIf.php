<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\CellValue;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/** What somebody tries out on the page of a KPI: other limits, other targets. */
final readonly class WantedWhatIf
{
    /**
     * @param  array<string, string>  $limits  plain figures by the members of a rule; those that are not there stay
     * @param  int|null  $periods  how many recent ones; null for as many as the rule has
     * @param  BigDecimal|null  $moved  targets moved by so many percent
     * @param  CellValue|null  $same  the same target in each period
     */
    public function __construct(
        public Period $month,
        public array $limits,
        public ?int $periods,
        public ?BigDecimal $moved,
        public ?CellValue $same,
    ) {}
}
