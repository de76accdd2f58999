<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\SessionLine;
use Carbon\CarbonImmutable;
use Illuminate\Config\Repository;
use Illuminate\Database\Connection;

/**
 * Where people are signed in: each device with its last use, ended one by one or all.
 */
final readonly class OpenSessions
{
    public function __construct(private Connection $database, private Repository $config) {}

    /**
     * @param  string  $own  the session that asks
     * @return list<SessionLine> the latest first
     */
    public function of(User $user, string $own): array
    {
        $alive = CarbonImmutable::now()->getTimestamp() - 60 * $this->config->integer('session.lifetime');

        /** @var list<object{id: string, ip_address: string|null, user_agent: string|null, last_activity: int}> $rows */
        $rows = $this->database->select('SELECT id, ip_address, user_agent, last_activity FROM sessions WHERE user_id = ? AND last_activity > ? ORDER BY last_activity DESC, id', [$user->id, $alive]);

        return array_map(fn (object $row): SessionLine => new SessionLine(
            self::name($row->id),
            self::device($row->user_agent ?? ''),
            $row->ip_address ?? '',
            CarbonImmutable::createFromTimestampUTC($row->last_activity)->toIso8601ZuluString(),
            $row->id === $own,
        ), $rows);
    }

    /** Ends one of the person's; one that is gone already is gone. */
    public function end(User $user, string $name): void
    {
        foreach ($this->database->table('sessions')->where('user_id', $user->id)->pluck('id')->all() as $id) {
            if (is_string($id) && self::name($id) === $name) {
                $this->database->table('sessions')->where('id', $id)->delete();
            }
        }
    }

    /** @param  string  $but  the session that stays; '' for none */
    public function endAll(User $user, string $but): void
    {
        $this->database->table('sessions')->where('user_id', $user->id)->where('id', '<>', $but)->delete();
    }

    /** What a session is called in an address: its identity would let whoever reads it in. */
    private static function name(string $id): string
    {
        return substr(hash('sha256', $id), 0, 32);
    }

    /** A browser and a system, as far as a device says so. */
    private static function device(string $agent): string
    {
        // The more particular first: most say that they are like another.
        $browser = self::said($agent, ['Edg/' => 'Edge', 'OPR/' => 'Opera', 'Firefox/' => 'Firefox', 'Chrome/' => 'Chrome', 'Safari/' => 'Safari', 'curl/' => 'curl']);
        $system = self::said($agent, ['iPhone' => 'iPhone', 'iPad' => 'iPad', 'Android' => 'Android', 'Windows' => 'Windows', 'Mac OS' => 'macOS', 'Linux' => 'Linux']);

        return match (true) {
            $browser === '' && $system === '' => 'A device that does not say what it is',
            $browser === '' || $system === '' => $browser.$system,
            default => "{$browser} on {$system}",
        };
    }

    /** @param  array<string, string>  $words  what a device is called, by the sign that it gives */
    private static function said(string $agent, array $words): string
    {
        foreach ($words as $sign => $name) {
            if (str_contains($agent, $sign)) {
                return $name;
            }
        }

        return '';
    }
}
