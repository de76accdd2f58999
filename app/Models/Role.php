<?php

declare(strict_types=1);

namespace App\Models;

/**
 * What a person comes to do, and so what they may do.
 */
enum Role: string
{
    /** Defines KPIs and may enter every figure. */
    case Analyst = 'analyst';
    /** Enters the figures that are theirs. */
    case Owner = 'owner';
    /** Enters the figures of their unit and the units below it. */
    case Head = 'head';
    /** Reads. */
    case Executive = 'executive';

    public function words(): string
    {
        return match ($this) {
            self::Analyst => 'Performance analyst',
            self::Owner => 'Data owner',
            self::Head => 'Department head',
            self::Executive => 'Executive',
        };
    }
}
