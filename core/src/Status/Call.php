<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;

/**
 * A status that a person has given over the computed one. The computed one stays beside it, and the call lapses when
 * the figure that it was made over changes.
 */
final readonly class Call
{
    /**
     * @param  Period  $period  the last period of the span, in the KPI's own frequency
     * @param  Exact  $over  the figure that it was made over
     * @param  string|null  $by  e-mail address of who made it
     */
    public function __construct(
        public Span $span,
        public Period $period,
        public Status $status,
        public string $reason,
        public Exact $over,
        public ?string $by = null,
    ) {}

    /** Whether it stands for the span that ends with the period and shows the figure. */
    public function holds(Span $span, Period $last, ?Exact $actual): bool
    {
        return $span === $this->span
            && $this->period->compareTo($last) === 0
            && $actual !== null
            && $actual->givenOut()->compareTo($this->over) === 0;
    }
}
