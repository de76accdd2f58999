<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Session\DatabaseSessionHandler;
use stdClass;

/**
 * Sessions in the database, where any node finds them. One that has not changed is not written again for a minute: most
 * requests only read, and nobody waits for a disk then.
 */
final class KeptSessions extends DatabaseSessionHandler
{
    private const WRITTEN_AGAIN = 60;

    /** What nobody needs after the next page: it changes with every request. */
    private const PASSING = ['_previous', '_flash'];

    private string $read = '';

    private int $used = 0;

    public function read($sessionId): string
    {
        $session = $this->getQuery()->find($sessionId);
        $isKept = $session instanceof stdClass;
        $this->used = $isKept && is_int($session->last_activity ?? null) ? $session->last_activity : 0;
        $data = $isKept && is_string($session->payload ?? null) && ! $this->expired($session) ? (string) base64_decode($session->payload, true) : '';
        $this->exists = $isKept;

        return $this->read = $data;
    }

    public function write($sessionId, $data): bool
    {
        if ($this->read !== '' && $this->currentTime() - $this->used < self::WRITTEN_AGAIN && $this->lasting($data) === $this->lasting($this->read)) {
            return true;
        }

        return parent::write($sessionId, $data);
    }

    /** @return array<array-key, mixed> */
    private function lasting(string $data): array
    {
        $held = unserialize($data, ['allowed_classes' => false]);

        return is_array($held) ? array_diff_key($held, array_flip(self::PASSING)) : [$data];
    }
}
