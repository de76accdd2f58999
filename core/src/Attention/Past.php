<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Status\Status;

/**
 * The statuses of single periods, back from the latest. Each is worked out when it is first asked for, as most
 * questions end after a few.
 */
final class Past
{
    /** @var list<array{Period, Status}> */
    private array $known = [];

    private bool $isOver = false;

    /**
     * @param  Period  $latest  the latest period that was due
     * @param  string|null  $earliest  the key of the earliest period with a figure
     * @param  \Closure(Period): Status  $status
     */
    public function __construct(public readonly Period $latest, private readonly ?string $earliest, private readonly \Closure $status) {}

    public function latest(): Status
    {
        return $this->at(0)[1] ?? Status::NoData;
    }

    /**
     * The periods that have a colour, the latest first; those without are passed over.
     *
     * @return iterable<Status>
     */
    public function colours(): iterable
    {
        for ($index = 0; ($entry = $this->at($index)) !== null; $index++) {
            if ($entry[1]->isColour()) {
                yield $entry[1];
            }
        }
    }

    /** The colour before that of the latest period; null when there was none. */
    public function colourBefore(): ?Status
    {
        for ($index = 1; ($entry = $this->at($index)) !== null; $index++) {
            if ($entry[1]->isColour()) {
                return $entry[1];
            }
        }

        return null;
    }

    /** How many periods up to now were red or amber without a green between them. */
    public function offCourse(): int
    {
        $length = 0;
        foreach ($this->colours() as $colour) {
            if ($colour === Status::Green) {
                break;
            }
            $length++;
        }

        return $length;
    }

    /** @return array{Period, Status}|null null before the first figure */
    private function at(int $index): ?array
    {
        while (! $this->isOver && ! isset($this->known[$index])) {
            $period = $this->latest->plus(-count($this->known));
            $this->isOver = $this->earliest === null || strcmp($period->key(), $this->earliest) < 0;
            if (! $this->isOver) {
                $this->known[] = [$period, ($this->status)($period)];
            }
        }

        return $this->known[$index] ?? null;
    }
}
