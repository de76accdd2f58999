<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Records\SplitPart;
use Kybernet\Core\Status\Course;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\Range;
use Kybernet\Core\Trend\Trend;

/**
 * Everything that the rules say of one KPI in one unit in a month.
 */
final readonly class Assessed
{
    /**
     * @param  array<string, Assessment>  $spans  by span
     * @param  array<string, Course|null>  $courses  by span
     * @param  array<string, array<string, list<SplitPart>>>|null  $splits  by split and span; null where they were not asked for
     */
    public function __construct(
        public string $kpi,
        public string $unit,
        public BigDecimal $weight,
        public Kind $kind,
        public array $spans,
        public array $courses,
        public ?Trend $trend,
        public ?ControlChart $control,
        public ?Projection $projection,
        public ?Range $range,
        public ?Streak $streak,
        public ?Exceptions $exceptions,
        public ?array $splits = null,
    ) {}
}
