<?php

declare(strict_types=1);

namespace App\Console\Concerns;

/**
 * A command that is given the name of a file.
 */
trait NamesFile
{
    private function file(): string
    {
        return $this->argument('file');
    }
}
