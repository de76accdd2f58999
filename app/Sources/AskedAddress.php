<?php

declare(strict_types=1);

namespace App\Sources;

use Illuminate\Contracts\Config\Repository;

/**
 * Whether an address may be asked: not what lies inside the own network, unless the installation allows it. Its name is
 * looked up once, and what was found is what is asked: it cannot become another address in between.
 */
final readonly class AskedAddress
{
    /** Networks that belong to nobody outside, beside those that PHP knows. */
    private const INSIDE = ['100.64.', '192.0.0.', '198.18.', '198.19.', '64:ff9b:', '2002:', 'fec0:'];

    private function __construct(public string $url, public string $host, public int $port, public string $ip) {}

    /** @throws NotAsked with the reason */
    public static function of(string $url, Repository $config): self
    {
        $parts = parse_url($url);
        $scheme = strtolower(is_array($parts) ? $parts['scheme'] ?? '' : '');
        $host = strtolower(is_array($parts) ? trim($parts['host'] ?? '', '[]') : '');
        if (! in_array($scheme, ['http', 'https'], true) || $host === '' || (is_array($parts) && isset($parts['user']))) {
            throw new NotAsked('An address such as https://jobs.example.org/records.csv, without a name or password in it.');
        }
        $port = is_array($parts) ? $parts['port'] ?? ($scheme === 'https' ? 443 : 80) : 0;
        $allowed = array_filter(explode(',', $config->string('kybernet.asked_hosts')), fn (string $each): bool => $each !== '');
        $isAllowed = in_array($host, $allowed, true) || in_array("{$host}:{$port}", $allowed, true);
        $found = filter_var($host, FILTER_VALIDATE_IP) !== false ? [$host] : self::lookedUp($host);
        if ($found === []) {
            throw new NotAsked("There is no server called {$host}.");
        }
        foreach ($isAllowed ? [] : $found as $ip) {
            if (! self::isOutside($ip)) {
                throw new NotAsked("{$host} lies inside the own network; whoever runs this installation can allow it (KYBERNET_ASKED_HOSTS).");
            }
        }

        return new self($url, $host, $port, $found[0]);
    }

    /** @return list<string> */
    private static function lookedUp(string $host): array
    {
        $four = gethostbynamel($host);
        $six = @dns_get_record($host, DNS_AAAA);

        return array_values(array_filter([...($four === false ? [] : $four), ...array_column($six === false ? [] : $six, 'ipv6')], is_string(...)));
    }

    private static function isOutside(string $ip): bool
    {
        $bytes = (string) inet_pton($ip);
        // An IPv4 address that is written as one of IPv6 is what it is.
        if (strlen($bytes) === 16 && in_array(substr($bytes, 0, 12), [str_repeat("\0", 12), str_repeat("\0", 10)."\xff\xff"], true)) {
            $ip = (string) inet_ntop(substr($bytes, 12));
        }
        foreach (self::INSIDE as $network) {
            if (str_starts_with(strtolower($ip), $network)) {
                return false;
            }
        }

        return filter_var($ip, FILTER_VALIDATE_IP, FILTER_FLAG_GLOBAL_RANGE) !== false;
    }
}
