<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

/**
 * For when a record is looked at: the clock of the organisation, and the last day of the period, or of the last of
 * several.
 */
final readonly class At
{
    public function __construct(public Zone $zone, public Day $periodEnd) {}
}
