<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\LinkLine;
use App\Models\Briefing;
use App\Models\User;
use App\Support\Installation;
use App\Support\Trail;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\Expression;
use Illuminate\Support\Str;

/**
 * Links with which a briefing is read without an account: up to a day, counted, and ended at once when somebody says so.
 * Only a digest of each is kept.
 */
final readonly class Links
{
    public const PREFIX = 'kbl_';

    public function __construct(private Connection $database, private Installation $installation, private Trail $trail) {}

    /** @return list<LinkLine> the newest first */
    public function of(Briefing $briefing): array
    {
        $moment = fn (?string $at): ?string => $at === null ? null : CarbonImmutable::parse($at)->utc()->toIso8601ZuluString();
        /** @var list<object{id: int, name: string, until: string, masked: bool, by: string|null, ended_at: string|null, opened: int, opened_at: string|null}> $rows */
        $rows = $this->database->table('briefing_links')->leftJoin('users', 'users.id', '=', 'made_by')->where('briefing_id', $briefing->id)->orderByDesc('briefing_links.id')
            ->get(['briefing_links.id', 'briefing_links.name', 'until', 'masked', 'users.name as by', 'ended_at', 'opened', 'opened_at'])->all();

        return array_values(array_map(fn (object $row): LinkLine => new LinkLine($row->id, $row->name, $row->until, $row->masked, $row->by, $row->opened, $moment($row->opened_at), match (true) {
            $row->ended_at !== null => 'ended',
            $row->until < $this->today() => 'over',
            default => 'good',
        }), $rows));
    }

    /** @return string the link's secret, which nobody can be shown again */
    public function make(Briefing $briefing, string $name, string $until, bool $masked, User $maker): string
    {
        $secret = self::PREFIX.rtrim(strtr(base64_encode(random_bytes(24)), '+/', '-_'), '=');
        $this->trail->within((string) Str::uuid(), '', fn (): bool => $this->database->table('briefing_links')->insert([
            'briefing_id' => $briefing->id, 'hash' => hash('sha256', $secret), 'name' => $name, 'until' => $until, 'masked' => $masked, 'made_by' => $maker->id, 'made_at' => now(),
        ]));

        return $secret;
    }

    public function end(Briefing $briefing, int $link): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('briefing_links')->where('id', $link)->where('briefing_id', $briefing->id)->whereNull('ended_at')->update(['ended_at' => now()]));
    }

    /** @return array{Briefing, bool}|null the briefing and whether names are masked; null where the link leads nowhere, or no longer */
    public function open(#[\SensitiveParameter] string $secret): ?array
    {
        $row = $this->known($secret)->first(['briefing_id', 'masked']);
        $briefing = $row === null ? null : Briefing::query()->whereNull('retired_at')->find($row->briefing_id);

        return $row === null || $briefing === null ? null : [$briefing, (bool) $row->masked];
    }

    /** Something was read with it. */
    public function count(#[\SensitiveParameter] string $secret): void
    {
        $this->known($secret)->update(['opened' => new Expression('opened + 1'), 'opened_at' => now()]);
    }

    private function known(#[\SensitiveParameter] string $secret): Builder
    {
        return $this->database->table('briefing_links')->where('hash', hash('sha256', $secret))->whereNull('ended_at')->where('until', '>=', $this->today());
    }

    private function today(): string
    {
        return CarbonImmutable::now($this->installation->timeZone())->toDateString();
    }
}
