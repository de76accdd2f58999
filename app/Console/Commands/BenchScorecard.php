<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Reading;
use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Review\ScorecardReader;
use App\Support\Month;
use Database\Ostermere\Accounts;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Kybernet\Core\Calendar\Span;
use RuntimeException;

/**
 * Times the scorecard request of the running application, on this machine's loopback only.
 */
final class BenchScorecard extends Command
{
    private const REQUESTS = 200;

    private const CLIENTS = 2;

    private const WARM_UP = 10;

    protected $signature = 'bench:scorecard {unit=OST : code of the unit} {--span=yearToDate}';

    protected $description = 'Time the scorecard request: p50 and p95 over 200 requests with 2 clients, and its queries';

    public function handle(ScorecardReader $reader, Connection $database): int
    {
        $unit = Unit::query()->where('code', $this->argument('unit'))->firstOrFail();
        $period = Month::ofDate((string) Reading::query()->whereNotNull('actual')->max('period'));
        $span = Span::from(is_string($this->option('span')) ? $this->option('span') : '');

        $database->enableQueryLog();
        $page = $reader->page($unit, $period, $span, User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Analyst))->firstOrFail());
        $queries = count($database->getQueryLog()) + 1;
        $database->disableQueryLog();

        $base = config()->string('app.url');
        if (parse_url($base, PHP_URL_HOST) !== '127.0.0.1') {
            throw new RuntimeException("{$base} is not on this machine's loopback; nothing is sent there.");
        }
        $cookies = $this->signIn($base);
        $url = "{$base}/api/units/{$unit->code}/scorecard?period={$period->key()}&span={$span->value}";
        $this->time($url, $cookies, self::WARM_UP, 1);
        $times = $this->time($url, $cookies, self::REQUESTS, self::CLIENTS);
        sort($times);
        $at = fn (float $share): float => $times[(int) ceil($share * count($times)) - 1] * 1000;

        $this->line("{$unit->name}, {$period->key()}, {$span->value}: ".array_sum(array_map(fn ($group): int => count($group->rows), $page->groups)).' rows');
        $this->line(sprintf('%d requests, %d clients: p50 %.1f ms, p95 %.1f ms, slowest %.1f ms', self::REQUESTS, self::CLIENTS, $at(0.5), $at(0.95), $at(1.0)));
        $this->line("{$queries} queries, the one for the account included");

        return self::SUCCESS;
    }

    /** @return string a file with the cookies of a session */
    private function signIn(string $base): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'kybernet');
        $this->fetch("{$base}/api/session", $file);
        preg_match('/XSRF-TOKEN\s+(\S+)/', (string) file_get_contents($file), $token);
        $this->fetch("{$base}/api/session", $file, [
            CURLOPT_POSTFIELDS => json_encode(['email' => 'analyst@ostermere.example', 'password' => Accounts::PASSWORD]),
            CURLOPT_HTTPHEADER => ['Content-Type: application/json', 'Accept: application/json', 'X-XSRF-TOKEN: '.urldecode($token[1] ?? '')],
        ]);

        return $file;
    }

    /** @param  array<int, mixed>  $options */
    private function fetch(string $url, string $cookies, array $options = []): void
    {
        $handle = $this->handleFor($url, $cookies, $options);
        curl_exec($handle);
        $status = curl_getinfo($handle, CURLINFO_RESPONSE_CODE);
        // Closing writes the cookies.
        unset($handle);
        if ($status !== 200) {
            throw new RuntimeException("{$url} answered {$status}; is bin/start running with the demonstration?");
        }
    }

    /**
     * @param  positive-int  $clients  requests on their way at any time
     * @return list<float> seconds of each request
     */
    private function time(string $url, string $cookies, int $requests, int $clients): array
    {
        $multi = curl_multi_init();
        $times = [];
        $left = $requests;
        $add = function () use (&$left, $multi, $url, $cookies): void {
            if ($left-- > 0) {
                curl_multi_add_handle($multi, $this->handleFor($url, $cookies));
            }
        };
        for ($client = 0; $client < $clients; $client++) {
            $add();
        }
        do {
            curl_multi_exec($multi, $running);
            curl_multi_select($multi, 0.05);
            while ($done = curl_multi_info_read($multi)) {
                $handle = $done['handle'];
                if (curl_getinfo($handle, CURLINFO_RESPONSE_CODE) !== 200) {
                    throw new RuntimeException("{$url} did not answer 200.");
                }
                $times[] = curl_getinfo($handle, CURLINFO_TOTAL_TIME);
                curl_multi_remove_handle($multi, $handle);
                $add();
            }
        } while (count($times) < $requests);

        return $times;
    }

    /** @param  array<int, mixed>  $options */
    private function handleFor(string $url, string $cookies, array $options = []): \CurlHandle
    {
        $handle = curl_init($url);
        curl_setopt_array($handle, [CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEFILE => $cookies, CURLOPT_COOKIEJAR => $cookies, CURLOPT_ENCODING => 'gzip'] + $options);

        return $handle;
    }
}
