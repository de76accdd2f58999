<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;

/**
 * What a roll-up is made from: statuses with their weights, counted where they are alike. Members may be thousands;
 * the weights among them are few, and each is multiplied and added once.
 */
final class Tally
{
    /** @var array<string, array<array-key, int>> how many, by status and weight */
    private array $times = [];

    /** @var array<array-key, BigDecimal> */
    private array $weights = [];

    /** @param  iterable<array{Status, BigDecimal}>  $members */
    public static function of(iterable $members): self
    {
        $tally = new self;
        foreach ($members as [$status, $weight]) {
            $tally->add($status, $weight);
        }

        return $tally;
    }

    public function add(Status $status, BigDecimal $weight, int $times = 1): void
    {
        $key = (string) $weight;
        $this->weights[$key] ??= $weight;
        $this->times[$status->value][$key] = ($this->times[$status->value][$key] ?? 0) + $times;
    }

    /** The weight of all that have the status. */
    public function weight(Status $status): BigDecimal
    {
        $sum = BigDecimal::zero();
        foreach ($this->times[$status->value] ?? [] as $key => $times) {
            $sum = $sum->plus($this->weights[$key]->multipliedBy($times));
        }

        return $sum;
    }

    /** Equal for tallies of the same statuses and weights, whatever the order in which they came. */
    public function key(): string
    {
        $parts = [];
        foreach ($this->times as $status => $byWeight) {
            foreach ($byWeight as $weight => $times) {
                $parts[] = "{$status} {$weight} {$times}";
            }
        }
        sort($parts);

        return implode(',', $parts);
    }

    /** How many have each status, whatever they weigh. */
    public function counts(): Counts
    {
        return Counts::by(array_map(array_sum(...), $this->times));
    }
}
