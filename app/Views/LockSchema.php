<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\Lock;
use OpenApi\Attributes as OA;

/** Why a cell cannot be typed in, by name; blank where it can. */
#[OA\Schema(schema: 'Lock', type: 'string', enum: [self::NONE, Lock::Formula, Lock::Gathered, Lock::Counted, Lock::TargetsBelow, Lock::NoTargets, Lock::Planned, Lock::Future, Lock::NotTheirs, Lock::NotMeasured, Lock::Closed, Lock::OtherYear, Lock::NoPeriod])]
final readonly class LockSchema
{
    public const REF = '#/components/schemas/Lock';

    private const NONE = '';

    public static function of(?Lock $lock): string
    {
        return $lock->value ?? self::NONE;
    }
}
