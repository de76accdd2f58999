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
        $times = [];
        foreach ($statuses as $status) {
            $times[$status->value] = ($times[$status->value] ?? 0) + 1;
        }

        return self::by($times);
    }

    /** @param  array<string, int>  $times  how many, by status */
    public static function by(array $times): self
    {
        return new self($times['green'] ?? 0, $times['amber'] ?? 0, $times['red'] ?? 0, $times['not-judged'] ?? 0, $times['no-data'] ?? 0);
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
