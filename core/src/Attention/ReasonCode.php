<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/** Why a KPI deserves attention. */
enum ReasonCode: string
{
    case Red = 'red';
    case Amber = 'amber';
    case Worsened = 'worsened';
    /** off course for several periods in a row */
    case Persistent = 'persistent';
    case ProjectedMiss = 'projected-miss';
    case Signal = 'signal';
    case BehindPriorYear = 'behind-prior-year';
    case Missing = 'missing';
    case Unexplained = 'unexplained';

    /** Points before the KPI's weight; a persistent one has more the longer it lasts. */
    public function points(): int
    {
        return match ($this) {
            self::Red => 40,
            self::Missing => 25,
            self::Worsened => 20,
            self::Amber, self::ProjectedMiss => 15,
            self::Signal, self::Unexplained => 10,
            self::BehindPriorYear, self::Persistent => 5,
        };
    }
}
