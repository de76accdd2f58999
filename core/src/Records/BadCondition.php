<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use InvalidArgumentException;

/**
 * A condition, or another part of what is counted, that means nothing.
 */
final class BadCondition extends InvalidArgumentException
{
    /**
     * @param  string  $member  at fault, as a path in it: `between/1`; '' for all of it
     * @param  string  $kind  of problem: `malformed`, `wrong-type`, `empty`, `missing-member`, `not-allowed` or `formula`
     */
    public function __construct(public readonly string $member, public readonly string $kind, string $message)
    {
        parent::__construct($message);
    }
}
