<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use InvalidArgumentException;

/**
 * A formula that cannot be read, and where.
 */
final class FormulaProblem extends InvalidArgumentException
{
    /** @param  int|null  $position  of the character at fault, from 1; null when it is the formula as a whole */
    public function __construct(string $message, public readonly ?int $position)
    {
        parent::__construct($message.($position === null ? '' : " (character {$position})"));
    }
}
