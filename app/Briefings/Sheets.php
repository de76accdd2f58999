<?php

declare(strict_types=1);

namespace App\Briefings;

use Illuminate\Contracts\Cache\Repository;
use Illuminate\Support\Str;

/**
 * Pages that are laid out to be printed: the server's own browser fetches them once, with a key that only it is told.
 */
final readonly class Sheets
{
    public const PREFIX = 'kbs_';

    /** A browser that has not come by then does not come any more. */
    private const SECONDS = 180;

    public function __construct(private Repository $cache) {}

    /**
     * @param  array<string, mixed>  $sheets
     * @return string the key
     */
    public function lay(array $sheets): string
    {
        $key = self::PREFIX.Str::random(40);
        $this->cache->put($this->name($key), json_encode($sheets, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION), self::SECONDS);

        return $key;
    }

    public function take(#[\SensitiveParameter] string $key): ?string
    {
        $found = $this->cache->get($this->name($key));

        return is_string($found) ? $found : null;
    }

    public function clear(#[\SensitiveParameter] string $key): void
    {
        $this->cache->forget($this->name($key));
    }

    private function name(#[\SensitiveParameter] string $key): string
    {
        return 'sheets-'.hash('sha256', $key);
    }
}
