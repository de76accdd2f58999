<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;

/**
 * A KPI in one unit as the screens need it: what it is called beside what the rules judge.
 */
final readonly class MeasurementFacts
{
    /**
     * @param  array<string, string>  $texts  what a colour means for it, by colour
     * @param  int|null  $dueDay  day of the month after a period by which its reading is due
     * @param  bool  $needsNote  whether a bad colour must be explained before the month is submitted
     * @param  string|null  $since  when it began to be measured in the unit; null where that is not known
     * @param  array<string, string>  $asOf  the day up to which a figure counts whose period was not over, by period
     * @param  list<string>  $parts  that are typed and add up to it
     * @param  bool  $isSplit  by what its records say
     */
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
        public array $texts,
        public ?int $dueDay,
        public bool $needsNote,
        public array $asOf,
        public Measurement $measurement,
        public ?string $since = null,
        public array $parts = [],
        public bool $isSplit = false,
    ) {}

    /** Whether its figures come from people, in the unit itself. */
    public function isTyped(): bool
    {
        return Owed::byPeople($this->measurement);
    }

    /** A figure as it is shown; the scores behind a judged KPI's colours are none. */
    public function shows(?Exact $figure): ?Exact
    {
        return $this->measurement->definition->kind === Kind::Judged ? null : $figure;
    }

    /**
     * The earliest day up to which any figure of the periods counts whose period was not over; null where all were.
     *
     * @param  list<Period>  $periods
     */
    public function provisional(array $periods): ?string
    {
        $days = array_intersect_key($this->asOf, array_fill_keys(array_map(fn (Period $period): string => $period->key(), $periods), true));

        return $days === [] ? null : min($days);
    }
}
