<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Accumulation;

/**
 * What is taken of the records of a period.
 */
enum Take: string
{
    case Count = 'count';
    case Distinct = 'distinct';
    case Sum = 'sum';
    case Mean = 'mean';
    case Minimum = 'minimum';
    case Maximum = 'maximum';
    case Median = 'median';
    case Percentile = 'percentile';
    /** those that meet conditions ÷ those counted × 100 */
    case Share = 'share';
    /** begun by the end of the period and not ended by then */
    case Open = 'open';

    /** By what targets, limits and projection go. */
    public function accumulation(): Accumulation
    {
        return match ($this) {
            self::Count, self::Sum => Accumulation::Sum,
            self::Minimum => Accumulation::Minimum,
            self::Maximum => Accumulation::Maximum,
            self::Open => Accumulation::Latest,
            default => Accumulation::Mean,
        };
    }

    /** Whether it is of a field or expression, each record giving a value. */
    public function isOfValues(): bool
    {
        return ! in_array($this, [self::Count, self::Share, self::Open], true);
    }

    /** Whether the values are numbers. */
    public function isOfNumbers(): bool
    {
        return $this->isOfValues() && $this !== self::Distinct;
    }

    /** Whether a covered period without records is nought, and not nothing. */
    public function isNoughtWithout(): bool
    {
        return in_array($this, [self::Count, self::Distinct, self::Sum], true);
    }

    /** Whether the parts' figures add up to the whole's. */
    public function addsUp(): bool
    {
        return in_array($this, [self::Count, self::Sum, self::Open], true);
    }

    /** Whether what several periods give together is known from what each of them gives. */
    public function isTakenOfParts(): bool
    {
        return ! in_array($this, [self::Distinct, self::Median, self::Percentile], true);
    }
}
