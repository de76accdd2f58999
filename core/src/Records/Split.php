<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Status;

/**
 * A counted KPI by the values of a field, or by bands of a number. Parts may have shares that they should have; the
 * distance from them is judged in points, either way.
 */
final readonly class Split
{
    /**
     * @param  list<Band>  $bands  of a number, ascending; none where each value is a part
     * @param  array<string, BigDecimal>  $shares  that parts should have, in %
     * @param  BigDecimal|null  $green  up to so many points off a part is on course
     * @param  BigDecimal|null  $amber  up to so many it drifts
     */
    public function __construct(
        public string $code,
        public string $name,
        public Source $of,
        public array $bands = [],
        public array $shares = [],
        public ?BigDecimal $green = null,
        public ?BigDecimal $amber = null,
    ) {}

    /**
     * Of the records alone, also where a figure by hand stands over them.
     *
     * @param  list<Period>  $periods  of a span, earliest first
     * @return list<SplitPart> by falling figure, none last, ties by name
     */
    public function parts(RecordFigures $figures, array $periods): array
    {
        $counted = array_values(array_filter($periods, fn (Period $period): bool => $figures->counted($period) !== null));
        if ($counted === []) {
            return SplitPart::sorted(array_map(fn (string $part): SplitPart => new SplitPart($part, null, null, $this->shares[$part], Status::NoData), array_map(strval(...), array_keys($this->shares))));
        }
        $found = $figures->counts->parts($this, $counted);
        $there = array_column($found, 0);
        foreach (array_map(strval(...), array_keys($this->shares)) as $part) {
            if (! in_array($part, $there, true)) {
                $found[] = [$part, new Count];
            }
        }
        $take = $figures->definition->take;
        $figure = fn (Count $count): ?Exact => $take->addsUp() ? $count->figure($take) : Exact::of($count->records);
        $known = Exact::known(array_map($figure, array_column($found, 1)));
        $total = $known === [] ? Exact::of(0) : Accumulation::Sum->combine($known);
        $parts = [];
        foreach ($found as [$name, $count]) {
            $actual = $count->records === 0 && ! $take->addsUp() && $take !== Take::Distinct ? null : $count->figure($take);
            $share = $total->isZero() ? null : $figure($count)?->times(100)->dividedBy($total);
            $target = $name === null ? null : $this->shares[$name] ?? null;
            $parts[] = new SplitPart($name, $actual, $share, $target, $this->judge($share, $target));
        }

        return SplitPart::sorted($parts);
    }

    /** The part to which a value belongs; null where there is none, or it lies in no band. */
    public function part(Exact|Day|Instant|string|bool|null $value): ?string
    {
        if ($value === null) {
            return null;
        }
        if ($this->bands === []) {
            return Source::text($value);
        }
        foreach ($this->bands as $band) {
            if ($value instanceof Exact && $band->holds($value)) {
                return $band->name;
            }
        }

        return null;
    }

    private function judge(?Exact $share, ?BigDecimal $target): Status
    {
        if ($target === null || $this->green === null || $this->amber === null) {
            return Status::NotJudged;
        }
        if ($share === null) {
            return Status::NoData;
        }
        $off = $share->minus(Exact::of($target))->abs();

        return match (true) {
            $off->compareTo(Exact::of($this->green)) <= 0 => Status::Green,
            $off->compareTo(Exact::of($this->amber)) <= 0 => Status::Amber,
            default => Status::Red,
        };
    }
}
