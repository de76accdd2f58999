<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use InvalidArgumentException;
use Kybernet\Core\Calendar\CivilDay;
use Kybernet\Core\Measure\Exact;

/**
 * A point in time, to the microsecond.
 */
final readonly class Instant
{
    private const FORM = '/\A(\d{4}-\d{2}-\d{2})T(\d{2}):(\d{2})(?::(\d{2})(\.\d{1,6})?)?(?:Z|([+-])(\d{2}):(\d{2}))\z/';

    /**
     * @param  int  $seconds  whole ones from 1 January 1970, 00:00 UTC
     * @param  string  $fraction  of a second after that, `.5`; '' for none
     */
    public function __construct(public int $seconds, public string $fraction = '') {}

    /**
     * `YYYY-MM-DDThh:mm[:ss[.f]]` with `Z` or `±hh:mm`.
     *
     * @throws InvalidArgumentException when it is none
     */
    public static function parse(string $text): self
    {
        $isOne = preg_match(self::FORM, $text, $match) === 1 && (int) $match[2] < 24 && (int) $match[3] < 60 && (int) ($match[4] ?? 0) < 60
            && (int) ($match[7] ?? 0) < 24 && (int) ($match[8] ?? 0) < 60;
        if (! $isOne) {
            throw new InvalidArgumentException("'{$text}' is not a time such as 2026-08-31T23:30:00+01:00.");
        }
        $offset = ((int) ($match[7] ?? 0) * 60 + (int) ($match[8] ?? 0)) * 60 * (($match[6] ?? '') === '-' ? -1 : 1);
        $clock = ((int) $match[2] * 60 + (int) $match[3]) * 60 + (int) ($match[4] ?? 0);

        return new self(Day::parse($match[1])->number * 86_400 + $clock - $offset, rtrim(rtrim($match[5] ?? '', '0'), '.'));
    }

    /** Seconds from 1 January 1970, 00:00 UTC. */
    public function exact(): Exact
    {
        return $this->fraction === '' ? Exact::of($this->seconds) : Exact::of($this->seconds)->plus(Exact::of('0'.$this->fraction));
    }

    /** The same instant always as the same text, in UTC. */
    public function key(): string
    {
        $day = CivilDay::floorDiv($this->seconds, 86_400);
        $clock = $this->seconds - $day * 86_400;

        return sprintf('%sT%02d:%02d:%02d%sZ', (new Day($day))->key(), intdiv($clock, 3600), intdiv($clock, 60) % 60, $clock % 60, $this->fraction);
    }
}
