<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Status;

/**
 * One part of a KPI in a span.
 */
final readonly class SplitPart
{
    /**
     * @param  string|null  $part  null for what has an empty field
     * @param  Exact|null  $share  of the whole, in %; null where the whole is 0
     * @param  BigDecimal|null  $target  the share that it should have
     */
    public function __construct(public ?string $part, public ?Exact $actual, public ?Exact $share, public ?BigDecimal $target, public Status $status) {}

    /**
     * @param  list<self>  $parts
     * @return list<self> by falling figure, none last; among equals by name, what is empty last
     */
    public static function sorted(array $parts): array
    {
        usort($parts, function (self $one, self $other): int {
            $byFigure = $one->actual === null || $other->actual === null ? ($one->actual === null) <=> ($other->actual === null) : $other->actual->compareTo($one->actual);

            return $byFigure !== 0 ? $byFigure : [$one->part === null, (string) $one->part] <=> [$other->part === null, (string) $other->part];
        });

        return $parts;
    }
}
