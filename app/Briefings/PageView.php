<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\Unit;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * What a page is looked at for: what its pieces follow unless they are pinned.
 */
final readonly class PageView
{
    /**
     * @param  Unit  $home  the unit that the page is for, wherever it is looked at now
     * @param  Period|null  $week  that KPIs with weeks are told of
     */
    public function __construct(public Unit $unit, public Unit $home, public Period $month, public Span $span, public ?Period $week = null) {}

    public function isNarrowed(): bool
    {
        return $this->unit->id !== $this->home->id;
    }
}
