<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Piece;
use App\Figures\MeasurementLine;
use App\Models\Unit;
use Kybernet\Core\Calendar\Span;

/**
 * A piece where it stands: for which unit and span, and with which measurements.
 */
final readonly class Place
{
    /**
     * @param  list<MeasurementLine>  $kpis  in the order of the piece
     * @param  string  $problem  why it cannot show what it was asked for; blank where it can
     * @param  int|null  $total  of how many the KPIs are the first
     */
    public function __construct(public Piece $piece, public Unit $unit, public Span $span, public array $kpis, public string $problem, public ?int $total = null) {}
}
