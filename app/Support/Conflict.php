<?php

declare(strict_types=1);

namespace App\Support;

use RuntimeException;

/**
 * Somebody else changed the same thing in the meantime. Nothing was written; the message says what stands there now.
 */
final class Conflict extends RuntimeException
{
    /** @param  array<string, mixed>  $current what stands there now, for the reader to choose */
    public function __construct(string $message, public readonly array $current)
    {
        parent::__construct($message);
    }
}
