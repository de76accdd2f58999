<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Expression;

/**
 * Links by which people come in to choose a password: invited ones within seven days, others within thirty minutes. Each
 * works once, a newer one takes the place of the one before, and only its hash is kept.
 */
final readonly class EntryLinks
{
    private const INVITED = '7 days';

    private const LET_IN_AGAIN = '30 minutes';

    public function __construct(private Connection $database) {}

    /** @return string the secret of the link */
    public function make(User $user): string
    {
        $secret = rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
        $this->database->table('entry_links')->upsert(
            [['user_id' => $user->id, 'hash' => hash('sha256', $secret), 'until' => new Expression("now() + interval '".($user->joined_at === null ? self::INVITED : self::LET_IN_AGAIN)."'")]],
            ['user_id'],
            ['hash', 'until'],
        );

        return $secret;
    }

    /** Whose it is; null where it works no longer. */
    public function owner(string $secret): ?User
    {
        $id = $this->database->table('entry_links')->where('hash', hash('sha256', $secret))->where('until', '>', new Expression('now()'))->value('user_id');

        return is_int($id) ? User::query()->whereNull('blocked_at')->where('is_program', false)->find($id) : null;
    }

    /** Takes it: of several who come with it at the same time one is let in. */
    public function take(string $secret): bool
    {
        return $this->database->table('entry_links')->where('hash', hash('sha256', $secret))->where('until', '>', new Expression('now()'))->delete() === 1;
    }

    public function void(User $user): void
    {
        $this->database->table('entry_links')->where('user_id', $user->id)->delete();
    }
}
