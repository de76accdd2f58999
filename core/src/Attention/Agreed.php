<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/**
 * An action that is open.
 */
final readonly class Agreed
{
    /** @param  string  $due  a day, as it is written for the reader */
    public function __construct(public string $what, public string $who, public string $due, public bool $isLate) {}
}
