<?php

declare(strict_types=1);

namespace App\Models;

/**
 * What a person comes to do, each for a part of the tree, and so what they may do there.
 */
enum Role: string
{
    /** Changes units, people and settings of the whole organisation; sees no figures. */
    case Administrator = 'administrator';
    /** Defines KPIs and may enter every figure. */
    case Analyst = 'analyst';
    /** Enters the figures of their unit and the units below it. */
    case Head = 'head';
    /** Enters the figures that are theirs, wherever they are measured. */
    case Owner = 'owner';
    /** Reads, to decide. */
    case Executive = 'executive';
    /** Reads. */
    case Reader = 'reader';
    /** Reads everything with the trail, and changes nothing. */
    case Auditor = 'auditor';

    public function words(): string
    {
        return match ($this) {
            self::Administrator => 'Administrator',
            self::Analyst => 'Performance analyst',
            self::Owner => 'Data owner',
            self::Head => 'Department head',
            self::Executive => 'Executive',
            self::Reader => 'Reader',
            self::Auditor => 'Auditor',
        };
    }

    /** Whether it reads every figure of its part of the tree. */
    public function reads(): bool
    {
        return ! in_array($this, [self::Administrator, self::Owner], true);
    }

    /** Whether it enters figures. */
    public function enters(): bool
    {
        return in_array($this, [self::Analyst, self::Head, self::Owner], true);
    }
}
