<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * How many KPIs have each status.
 */
final readonly class Counts
{
    private function __construct(
        public int $green = 0,
        public int $amber = 0,
        public int $red = 0,
        public int $notJudged = 0,
        public int $noData = 0,
    ) {}

    /** @param  iterable<Status>  $statuses */
    public static function of(iterable $statuses): self
    {
        $count = ['green' => 0, 'amber' => 0, 'red' => 0, 'not-judged' => 0, 'no-data' => 0];
        foreach ($statuses as $status) {
            $count[$status->value]++;
        }

        return new self($count['green'], $count['amber'], $count['red'], $count['not-judged'], $count['no-data']);
    }

    public function plus(self $that): self
    {
        return new self(
            $this->green + $that->green,
            $this->amber + $that->amber,
            $this->red + $that->red,
            $this->notJudged + $that->notJudged,
            $this->noData + $that->noData,
        );
    }

    public function judged(): int
    {
        return $this->green + $this->amber + $this->red;
    }
}
