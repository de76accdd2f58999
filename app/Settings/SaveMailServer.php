<?php

declare(strict_types=1);

namespace App\Settings;

use App\Support\Conflict;
use App\Support\Installation;
use App\Support\Trail;
use Illuminate\Contracts\Encryption\Encrypter;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;

/** Sets through whom people are written to. The password is kept encrypted and shown to nobody. */
final readonly class SaveMailServer
{
    public function __construct(private Connection $database, private Installation $installation, private HeldSettings $held, private Encrypter $encrypter, private Trail $trail) {}

    /**
     * @param  array{host: string, port: int, user: string, from: string}  $server
     * @param  string|null  $password  null: the one that is kept stays
     * @param  int  $seen  the version of the settings that was changed
     *
     * @throws Conflict where somebody else was faster
     */
    public function __invoke(array $server, #[\SensitiveParameter] ?string $password, int $seen): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($server, $password, $seen): void {
            $version = $this->held->hold($seen);
            $isOther = $server['host'] !== $this->installation->mail()['host'] || $server['user'] !== $this->installation->mail()['user'];
            $this->database->table('installation')->update([
                'mail_host' => $server['host'], 'mail_port' => $server['port'], 'mail_user' => $server['user'], 'mail_from' => $server['from'], 'version' => $version,
                // What was kept for one server is not shown to another.
                ...($password !== null ? ['mail_secret' => $password === '' ? null : $this->encrypter->encrypt($password, false)] : ($isOther ? ['mail_secret' => null] : [])),
            ]);
            $this->installation->forget();
        });
    }
}
