<?php

declare(strict_types=1);

namespace App\Sources;

use App\Tables\BadTable;
use GuzzleHttp\Exception\GuzzleException;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Http\Client\Factory;
use Illuminate\Http\Client\Response;

/**
 * Asks an address for records: CSV or JSON, page after page, with a secret header. What was there at the last time is not
 * fetched again (ETag). Redirects are looked at as if somebody had typed them.
 */
final readonly class AddressFetcher
{
    private const CONNECT_SECONDS = 10;

    private const MOST_SECONDS = 600;

    private const MOST_BYTES = 1_000_000_000;

    /** A page that has to be looked at as a whole: an array of JSON, or one of several pages. */
    private const MOST_PAGE_BYTES = 32_000_000;

    private const MOST_REDIRECTS = 3;

    private const MOST_PAGES = 10_000;

    public function __construct(private Factory $http, private Repository $config) {}

    /**
     * @param  string  $path  where what comes is kept
     * @param  string  $header  in which the secret goes; blank for none
     * @param  string  $pageField  of the address, counted from 1 until a page is empty; blank where there is one page
     * @param  string|null  $etag  of what was there last
     * @return array{bool, string|null} whether anything new was there, and its ETag
     *
     * @throws NotAsked
     */
    public function fetch(string $url, string $path, string $header, #[\SensitiveParameter] ?string $secret, string $pageField, ?string $etag): array
    {
        $new = null;
        $left = self::MOST_BYTES;
        for ($page = 1; $page <= ($pageField === '' ? 1 : self::MOST_PAGES); $page++) {
            $part = "{$path}.part";
            $answer = $this->ask($pageField === '' ? $url : $this->paged($url, $pageField, $page), $part, $header, $secret, $page === 1 ? $etag : null);
            if ($page === 1 && $answer->status() === 304) {
                return [false, $etag];
            }
            if ($page === 1) {
                $new = $answer->header('ETag') === '' ? null : $answer->header('ETag');
            }
            $left -= (int) filesize($part);
            if ($left < 0) {
                throw new NotAsked('It sends more than a gigabyte.');
            }
            if (! $this->append($path, $part, $page)) {
                break;
            }
        }

        return [true, $new];
    }

    private function paged(string $url, string $field, int $page): string
    {
        return $url.(str_contains($url, '?') ? '&' : '?').rawurlencode($field).'='.$page;
    }

    /** @throws NotAsked */
    private function ask(string $url, string $path, string $header, #[\SensitiveParameter] ?string $secret, ?string $etag): Response
    {
        $first = AskedAddress::of($url, $this->config);
        for ($redirects = 0; $redirects <= self::MOST_REDIRECTS; $redirects++) {
            $asked = AskedAddress::of($url, $this->config);
            // A secret is for the server that it was given for.
            $isSame = $asked->host === $first->host && $asked->port === $first->port && str_starts_with($url, 'https') === str_starts_with($first->url, 'https');
            try {
                $answer = $this->http->withOptions([
                    'allow_redirects' => false, 'sink' => $path, 'connect_timeout' => self::CONNECT_SECONDS, 'decode_content' => true,
                    'curl' => [CURLOPT_RESOLVE => ["{$asked->host}:{$asked->port}:{$asked->ip}"], CURLOPT_PROXY => '', CURLOPT_LOW_SPEED_LIMIT => 1, CURLOPT_LOW_SPEED_TIME => 60],
                    'progress' => function (int|float $expected, int|float $loaded): void {
                        if (max($expected, $loaded) > self::MOST_BYTES) {
                            throw new NotAsked('It sends more than a gigabyte.');
                        }
                    },
                ])->timeout(self::MOST_SECONDS)->withHeaders([
                    'Accept' => 'text/csv, application/x-ndjson, application/json', 'User-Agent' => 'Kybernet',
                    ...($header === '' || $secret === null || ! $isSame ? [] : [$header => $secret]), ...($etag === null ? [] : ['If-None-Match' => $etag]),
                ])->get($url);
            } catch (ConnectionException|GuzzleException $broken) {
                throw new NotAsked(match (true) {
                    str_contains($broken->getMessage(), 'timed out') => 'It does not answer in time.',
                    str_contains($broken->getMessage(), 'transfer closed') || str_contains($broken->getMessage(), 'outstanding') => 'It broke off in the middle.',
                    default => 'It cannot be reached.',
                });
            }
            if (! $answer->redirect()) {
                return $answer->status() === 304 || $answer->successful() ? $answer : throw new NotAsked("It answers with {$answer->status()}.");
            }
            $url = $this->next($url, $answer->header('Location'));
        }
        throw new NotAsked('It leads on and on to other addresses.');
    }

    private function next(string $from, string $to): string
    {
        if (preg_match('#\Ahttps?://#i', $to) === 1) {
            return $to;
        }
        $parts = parse_url($from);

        return (is_array($parts) ? ($parts['scheme'] ?? 'http').'://'.($parts['host'] ?? '').(isset($parts['port']) ? ":{$parts['port']}" : '') : '').'/'.ltrim($to, '/');
    }

    /** Puts a page behind those before it; whether it held anything. JSON arrays become lines, and heads of CSV stand once. */
    private function append(string $path, string $part, int $page): bool
    {
        if ($page === 1 && ! str_starts_with(ltrim((string) file_get_contents($part, length: 1_000)), '[')) {
            return rename($part, $path) && filesize($path) > 0;
        }
        if ((int) filesize($part) > self::MOST_PAGE_BYTES) {
            throw new NotAsked('A page of it has more than 32 MB. It should come in smaller pages, or as CSV or lines of JSON.');
        }
        $text = (string) file_get_contents($part);
        unlink($part);
        if ($page > 1 || str_starts_with(ltrim($text), '[')) {
            if (str_starts_with(ltrim($text), '[')) {
                try {
                    $text = JsonTable::lines($text);
                } catch (BadTable) {
                    throw new NotAsked('What it sends is no JSON.');
                }
            } elseif ($page > 1) {
                $text = substr($text, (int) strpos($text, "\n") + 1);
            }
        }
        if (trim($text) === '') {
            return false;
        }
        file_put_contents($path, rtrim($text, "\r\n")."\n", $page === 1 ? 0 : FILE_APPEND);

        return true;
    }
}
