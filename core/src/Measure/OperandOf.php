<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * What of a KPI a formula takes. The last two stand in formulas of targets only.
 */
enum OperandOf: string
{
    /** Its figure in the unit itself. */
    case Here = '';
    /** Its figure gathered over the units below. */
    case Below = 'below';
    /** Its figure a year earlier. */
    case Prior = 'prior';
    /** Its target. */
    case Target = 'target';

    /** @return list<string> the functions that say it, in a formula of figures or of targets */
    public static function functions(bool $isTarget): array
    {
        return $isTarget ? [self::Below->value, self::Prior->value, self::Target->value] : [self::Below->value];
    }
}
