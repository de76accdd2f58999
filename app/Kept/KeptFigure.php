<?php

declare(strict_types=1);

namespace App\Kept;

use App\Views\Shown;
use Kybernet\Core\Compare\PeerFigure;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;

/**
 * What a KPI in a unit came to on a span, and what it should have: all that it is compared by with those of other units.
 *
 * @phpstan-type Figure array{string, string, string}
 */
final readonly class KeptFigure
{
    /** Out of the record of a judged span, in SQL: the places are those of SpanRecord. */
    public const OF_RECORD = 'jsonb_build_array(record->3->0, record->3->1, record->4, record->12, record->17, record->18)';

    /**
     * @param  string  $instead  what is said where there is no figure
     * @param  int  $reported  periods of the span that have a reading
     * @param  array{Shown, Shown}|null  $band  what it should lie between
     * @param  string|null  $compared  exact, over the periods that have a target too; null where it is the figure itself
     */
    public function __construct(
        public ?Shown $actual,
        public ?Shown $target,
        public string $instead,
        public int $reported,
        public ?array $band,
        public ?string $compared,
    ) {}

    public static function of(AssessedSpan $span): self
    {
        return new self($span->actual, $span->target, $span->instead, $span->reported, $span->band, $span->compared);
    }

    public static function read(string $record): self
    {
        /** @var array{Figure|null, Figure|null, string, int, array{Figure, Figure}|null, string|null} $kept as it was written */
        $kept = json_decode($record, true, flags: JSON_THROW_ON_ERROR);
        [$actual, $target, $instead, $reported, $band, $compared] = $kept;

        return new self(
            $actual === null ? null : new Shown(...$actual),
            $target === null ? null : new Shown(...$target),
            $instead,
            $reported,
            $band === null ? null : [new Shown(...$band[0]), new Shown(...$band[1])],
            $compared,
        );
    }

    /** Whether a reading was due at all: a unit that is closed, or not there yet, is none of those that are compared. */
    public function isDue(): bool
    {
        return $this->instead !== AssessedSpan::NOTHING_DUE;
    }

    public function peer(): PeerFigure
    {
        $exact = fn (?string $figure): ?Exact => $figure === null ? null : Exact::of($figure);

        return new PeerFigure(
            $exact($this->actual?->exact),
            $exact($this->target?->exact),
            $this->band === null ? null : new Band(Exact::of($this->band[0]->exact), Exact::of($this->band[1]->exact)),
            $this->reported,
            $exact($this->compared),
        );
    }
}
