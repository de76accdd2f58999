<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/**
 * Figures by period, as they were entered. A period that is not there has no figure, which is never the same as zero.
 */
final readonly class Series implements Figures
{
    /** @param  array<string, string>  $figures sound figures (see {@see Figure::parse()}) keyed by period, `2026-08` */
    public function __construct(private array $figures) {}

    public function at(Period $period): ?BigDecimal
    {
        $figure = $this->written($period);

        return $figure === null ? null : BigDecimal::of($figure);
    }

    /** The figure as it is stored. */
    public function written(Period $period): ?string
    {
        return $this->figures[$period->key()] ?? null;
    }

    /** @return array<string, string> by period, as they were given */
    public function all(): array
    {
        return $this->figures;
    }

    public function has(Period $period): bool
    {
        return isset($this->figures[$period->key()]);
    }

    public function absence(Period $period): Absence
    {
        return Absence::Missing;
    }

    public function figure(Period $period): ?Exact
    {
        $figure = $this->written($period);

        return $figure === null ? null : Exact::of($figure);
    }

    public function float(Period $period): ?float
    {
        $figure = $this->written($period);

        return $figure === null ? null : (float) $figure;
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        return $rule->gather($this, $periods);
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    public function earliest(): ?string
    {
        return $this->figures === [] ? null : min(array_keys($this->figures));
    }

    /**
     * The figures of the periods that have one, as they are stored.
     *
     * @param  list<Period>  $periods
     * @return list<string>
     */
    public function known(array $periods): array
    {
        $known = [];
        foreach ($periods as $period) {
            $figure = $this->figures[$period->key()] ?? null;
            if ($figure !== null) {
                $known[] = $figure;
            }
        }

        return $known;
    }

    /** The same series with one period's figure replaced, or taken out when null. */
    public function with(Period $period, ?BigDecimal $figure): self
    {
        $figures = $this->figures;
        unset($figures[$period->key()]);

        return new self($figure === null ? $figures : [...$figures, $period->key() => (string) $figure]);
    }
}
