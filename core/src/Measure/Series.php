<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/**
 * Figures by month. A month that is not there has no figure, which is never the same as zero.
 */
final class Series
{
    /** @var array<string, BigDecimal> what has been read so far: long series are stored, few months are looked at */
    private array $read = [];

    /** @param  array<string, string>  $figures stored figures keyed by month, `2026-08` */
    public function __construct(private readonly array $figures) {}

    public function at(Period $month): ?BigDecimal
    {
        $key = $month->key();
        if (! isset($this->figures[$key])) {
            return null;
        }

        return $this->read[$key] ??= Figure::parse($this->figures[$key]);
    }

    public function has(Period $month): bool
    {
        return isset($this->figures[$month->key()]);
    }

    /** The same series with one month's figure replaced, or taken out when null. */
    public function with(Period $month, ?BigDecimal $figure): self
    {
        $figures = $this->figures;
        unset($figures[$month->key()]);

        return new self($figure === null ? $figures : [...$figures, $month->key() => (string) $figure]);
    }
}
