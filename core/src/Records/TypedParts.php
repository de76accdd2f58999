<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Status\Status;

/**
 * The parts of a typed KPI in a unit, which add up to it.
 */
final readonly class TypedParts
{
    /** The split under which they stand. */
    public const CODE = 'parts';

    /** @param  array<string, Series>  $parts  figures by name */
    public function __construct(public array $parts) {}

    /**
     * @param  list<Period>  $periods  of a span that have a figure, earliest first
     * @return list<SplitPart>
     */
    public function of(array $periods, Accumulation $rule): array
    {
        $figures = array_map(fn (Series $series): ?Exact => $series->gather($periods, $rule), $this->parts);
        $known = Exact::known($figures);
        $sum = $known === [] ? null : Accumulation::Sum->combine($known);

        return SplitPart::sorted(array_map(
            fn (string $part, ?Exact $figure): SplitPart => new SplitPart($part, $figure, $sum === null || $sum->isZero() ? null : $figure?->times(100)->dividedBy($sum), null, Status::NotJudged),
            array_map(strval(...), array_keys($figures)),
            $figures,
        ));
    }
}
