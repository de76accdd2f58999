<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Session\FileSessionHandler;

/**
 * Sessions in files that are put in place as a whole: a server that is killed while it writes one would leave it empty,
 * and its person signed out.
 */
final class WholeSessions extends FileSessionHandler
{
    public function write($sessionId, $data): bool
    {
        $this->files->replace("{$this->path}/{$sessionId}", $data);

        return true;
    }
}
