<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * Where a target comes from. Of several periods together, whatever is not `set` goes before it: a quarter of which one
 * month takes its share of the year's figure is from the year.
 */
enum TargetFrom: string
{
    /** Set for the period itself. */
    case Set = 'set';
    /** The figure set for its year, or a share of it. */
    case Year = 'year';
    /** Worked out from other KPIs. */
    case Formula = 'formula';

    /** @param  list<Goal>  $goals */
    public static function together(array $goals): self
    {
        foreach ($goals as $goal) {
            if ($goal->from !== self::Set) {
                return $goal->from;
            }
        }

        return self::Set;
    }
}
