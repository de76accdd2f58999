<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * What a figure was judged to be.
 */
enum Status: string
{
    case Green = 'green';
    case Amber = 'amber';
    case Red = 'red';
    case NotJudged = 'not-judged';
    case NoData = 'no-data';

    /** What the status is called where a sentence names it. */
    public function words(): string
    {
        return match ($this) {
            self::Green => 'On course',
            self::Amber => 'Drifting',
            self::Red => 'Off course',
            self::NotJudged => 'Not judged',
            self::NoData => 'No reading',
        };
    }

    /** The same in the middle of a sentence. */
    public function inPassing(): string
    {
        return lcfirst($this->words());
    }

    /** 2 for green, 1 for amber, 0 for red; null for what is no colour. */
    public function score(): ?int
    {
        return match ($this) {
            self::Green => 2,
            self::Amber => 1,
            self::Red => 0,
            self::NotJudged, self::NoData => null,
        };
    }

    /** The colour that scores so. */
    public static function ofScore(int $score): self
    {
        return match ($score) {
            2 => self::Green,
            1 => self::Amber,
            default => self::Red,
        };
    }

    public function isColour(): bool
    {
        return $this->score() !== null;
    }
}
