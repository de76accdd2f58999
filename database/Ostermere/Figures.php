<?php

declare(strict_types=1);

namespace Database\Ostermere;

use Kybernet\Core\Calendar\Period;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * Makes the figures of the demonstration. Each KPI and unit has a generator of its own, seeded by its name, so that
 * the data are the same on each start and adding a KPI leaves the others as they are.
 */
final readonly class Figures
{
    private const SEED = 'ostermere 1';

    private const CHANCES = 1_000_000;

    /** Units differ: a zone or a works has its own size, within this share of the base. */
    private const SPREAD = 0.14;

    public function __construct(private Plan $plan, private string $unit) {}

    /** @return array<string, string> actuals by month */
    public function actuals(): array
    {
        $chance = $this->chance('actual');
        $size = $this->size();
        $quality = $this->quality();
        $factors = [];
        foreach (Story::events() as [$kpi, $unit, $month, $factor]) {
            if ($kpi === $this->plan->code && $unit === $this->unit) {
                $factors[$month] = $factor;
            }
        }
        $told = Story::told()[$this->plan->code] ?? null;
        $figures = [];
        foreach ($this->months() as $index => $month) {
            $base = $this->plan->base * $size * (1 + $this->plan->trend * $index / 12) * (1 + $quality);
            $value = ($base + $this->plan->base * $size * $this->swing($month)) * ($factors[$month->key()] ?? 1.0)
                + $this->plan->base * $size * $this->plan->noise * $this->bell($chance);
            if ($this->plan->within !== null) {
                $value = max($this->plan->within[0], min($this->plan->within[1], $value));
            }
            $figures[$month->key()] = $told === null ? $this->written($value) : (string) $told[$index];
        }
        foreach (Story::missing() as [$kpi, $unit, $month]) {
            if ($kpi === $this->plan->code && $unit === $this->unit) {
                unset($figures[$month]);
            }
        }

        return array_filter($figures, fn (string $month): bool => $month >= $this->plan->from, ARRAY_FILTER_USE_KEY);
    }

    /** @return array<string, string> targets by month, to the end of the last financial year */
    public function targets(): array
    {
        if ($this->plan->rule[0] !== 'percent') {
            return [];
        }
        $size = $this->size();
        $targets = [];
        foreach ($this->months(Period::parse('2027-03')) as $index => $month) {
            $yearsBefore = 2 - intdiv($index, 12);
            $value = $this->plan->base * $size * ($this->plan->aim + $this->plan->stretch * $yearsBefore)
                + ($this->plan->shaped ? $this->plan->base * $size * $this->swing($month) : 0.0);
            $targets[$month->key()] = $this->written($value);
        }

        return array_filter($targets, fn (string $month): bool => $month >= $this->plan->from, ARRAY_FILTER_USE_KEY);
    }

    /** @return list<Period> */
    private function months(?Period $last = null): array
    {
        return Period::parse(Story::FIRST_MONTH)->to($last ?? Period::parse(Story::LAST_MONTH));
    }

    private function size(): float
    {
        return in_array($this->plan->at, ['zones', 'works', 'meters'], true) && $this->plan->within !== [0.0, 100.0] && $this->plan->rule[0] === 'percent'
            ? 1 + self::SPREAD * (2 * $this->chance('size')->getInt(0, self::CHANCES) / self::CHANCES - 1)
            : 1.0;
    }

    /** A meter does as its family does, more or less; targets take no notice of it. */
    private function quality(): float
    {
        return $this->plan->quality === 0.0 ? 0.0 : $this->plan->quality
            * (World::FAMILIES[ucfirst(strtolower(explode('-', $this->unit)[1]))] + 0.35 * $this->bell(new Randomizer(new Mt19937(crc32(self::SEED.'quality'.$this->unit)))));
    }

    private function swing(Period $month): float
    {
        return $this->plan->season * cos(2 * M_PI * ($month->monthOfYear() - $this->plan->peak) / 12);
    }

    /** Large sums are kept to the hundred: nobody reports a budget to the penny. */
    private function written(float $value): string
    {
        return $this->plan->base >= 100_000
            ? (string) (int) (round($value / 100) * 100)
            : number_format($value, $this->plan->decimals, '.', '');
    }

    private function chance(string $purpose): Randomizer
    {
        return new Randomizer(new Mt19937(crc32(self::SEED.$purpose.$this->plan->code.$this->unit)));
    }

    /** A draw close to the normal distribution with mean 0 and standard deviation 1: the sum of twelve even ones. */
    private function bell(Randomizer $chance): float
    {
        $sum = -6.0;
        for ($draw = 0; $draw < 12; $draw++) {
            $sum += $chance->getInt(0, self::CHANCES) / self::CHANCES;
        }

        return $sum;
    }
}
