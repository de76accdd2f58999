<?php

declare(strict_types=1);

namespace App\Support;

/** Whether something of an installation is as it should be, and what to do where it is not. */
final readonly class Finding
{
    /**
     * @param  string  $name  for machines, in a word
     * @param  string  $words  how it is, as a sentence without its point
     * @param  string  $remedy  what to do; blank where all is well
     */
    public function __construct(public string $name, public bool $isWell, public string $words, public string $remedy = '') {}
}
