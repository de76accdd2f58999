<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordSet;
use App\Support\Trail;
use Illuminate\Contracts\Encryption\Encrypter;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;

/**
 * How the records of a set come in by themselves. Secrets are kept encrypted and shown to nobody again; a program's token
 * is kept as its hash alone.
 *
 * @phpstan-type Settings array{url: string, header: string, pageField: string, host: string, port: int, database: string, user: string, sql: string, minutes: int}
 */
final readonly class WaySettings
{
    public const PREFIX = 'kybr_';

    public const BLANK = ['url' => '', 'header' => '', 'pageField' => '', 'host' => '', 'port' => 5432, 'database' => '', 'user' => '', 'sql' => '', 'minutes' => 1440];

    public function __construct(private Connection $database, private Encrypter $encrypter, private Trail $trail) {}

    /** @return Settings */
    public function of(int $set): array
    {
        $kept = $this->database->table('record_sets')->where('id', $set)->value('settings');
        /** @var array<string, mixed> $settings */
        $settings = json_decode(is_string($kept) ? $kept : '{}', true, flags: JSON_THROW_ON_ERROR);
        $text = fn (string $name): string => is_string($settings[$name] ?? null) ? $settings[$name] : self::BLANK[$name];
        $number = fn (string $name): int => is_int($settings[$name] ?? null) ? $settings[$name] : self::BLANK[$name];

        return ['url' => $text('url'), 'header' => $text('header'), 'pageField' => $text('pageField'), 'host' => $text('host'), 'port' => $number('port'), 'database' => $text('database'), 'user' => $text('user'), 'sql' => $text('sql'), 'minutes' => $number('minutes')];
    }

    public function secret(int $set): ?string
    {
        $kept = $this->database->table('record_sets')->where('id', $set)->value('secret');
        $secret = is_string($kept) ? $this->encrypter->decrypt($kept, false) : null;

        return is_string($secret) ? $secret : null;
    }

    /**
     * @param  Settings  $settings
     * @param  string|null  $secret  null: the one that is kept stays, where the server is the same
     * @return string|null a token, where programs are to send: shown this once
     */
    public function change(RecordSet $set, string $way, array $settings, #[\SensitiveParameter] ?string $secret): ?string
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($set, $way, $settings, $secret): ?string {
            $this->database->table('record_sets')->where('id', $set->id)->lockForUpdate()->value('id');
            $before = $this->of($set->id);
            $isOther = parse_url($before['url'], PHP_URL_HOST) !== parse_url($settings['url'], PHP_URL_HOST) || [$before['host'], $before['user']] !== [$settings['host'], $settings['user']];
            $token = $way === 'sent' ? self::PREFIX.rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=') : null;
            $this->database->table('record_sets')->where('id', $set->id)->update([
                'way' => $way, 'settings' => json_encode($settings, JSON_THROW_ON_ERROR), 'asked_next' => in_array($way, ['address', 'query'], true) ? now() : null, 'asked_state' => '{}',
                'token_hash' => $token === null ? null : hash('sha256', $token), 'version' => $this->database->raw('version + 1'), 'updated_at' => now(),
                // What was kept for one server is not shown to another.
                ...($secret !== null ? ['secret' => $secret === '' ? null : $this->encrypter->encrypt($secret, false)] : ($isOther ? ['secret' => null] : [])),
            ]);

            return $token;
        });
    }
}
