<?php

declare(strict_types=1);

namespace App\Settings;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Settings\Views\TokenLine;
use App\Support\Installation;
use App\Support\Trail;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Expression;
use Illuminate\Support\Str;

/**
 * Programs that come with a token. Each acts as an account of its own, with which nobody signs in: what it may see and
 * write follows from the role of that account, and the trail names it.
 */
final readonly class Tokens
{
    /** So that a token that was left lying about is known for one. */
    public const PREFIX = 'kyb_';

    public function __construct(private Connection $database, private Installation $installation, private Hasher $hasher, private Trail $trail) {}

    /** @return list<TokenLine> the newest first */
    public function all(): array
    {
        /** @var list<object{id: int, name: string, unit: string, writes: bool, until: string, by: string|null, used: string|null, revoked: string|null, over: bool}> $rows */
        $rows = $this->database->select(
            "SELECT tokens.id, users.name, units.name AS unit, grants.role = 'head' AS writes, tokens.until, maker.name AS by, tokens.used_at AS used, tokens.revoked_at AS revoked, tokens.until < ? AS over
             FROM tokens JOIN users ON users.id = tokens.user_id JOIN grants ON grants.user_id = users.id JOIN units ON units.id = grants.unit_id LEFT JOIN users maker ON maker.id = made_by
             ORDER BY tokens.id DESC",
            [$this->today()],
        );
        $moment = fn (?string $at): ?string => $at === null ? null : CarbonImmutable::parse($at)->utc()->toIso8601ZuluString();

        return array_map(fn (object $row): TokenLine => new TokenLine($row->id, $row->name, $row->unit, $row->writes, $row->until, $row->by, $moment($row->used), $row->revoked !== null ? 'revoked' : ($row->over ? 'over' : 'good')), $rows);
    }

    /** @return string the token, which nobody can be shown again */
    public function make(string $name, Unit $unit, bool $writes, string $until, User $maker): string
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($name, $unit, $writes, $until, $maker): string {
            $token = self::PREFIX.rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
            $account = User::query()->forceCreate([
                'name' => $name, 'email' => Str::uuid().'@program.invalid', 'password' => $this->hasher->make(Str::random(64)), 'locale' => 'en-GB', 'joined_at' => now(), 'is_program' => true,
            ]);
            $account->grants()->create(['role' => $writes ? Role::Head : Role::Reader, 'unit_id' => $unit->id]);
            $this->database->table('tokens')->insert(['user_id' => $account->id, 'hash' => hash('sha256', $token), 'until' => $until, 'made_by' => $maker->id]);

            return $token;
        });
    }

    /** Ends it at once and for good. */
    public function revoke(int $id): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('tokens')->where('id', $id)->whereNull('revoked_at')->update(['revoked_at' => new Expression('now()')]));
    }

    /** The account as which whoever has the token acts; null where it is none, over or revoked. */
    public function account(#[\SensitiveParameter] string $token): ?User
    {
        $known = $this->database->table('tokens')->where('hash', hash('sha256', $token))->whereNull('revoked_at')->where('until', '>=', $this->today());
        $id = $known->value('user_id');
        if (! is_int($id)) {
            return null;
        }
        // To the minute or so: not every request writes it.
        $known->whereRaw("coalesce(used_at, '-infinity') < now() - interval '1 minute'")->update(['used_at' => new Expression('now()')]);

        return User::query()->whereNull('blocked_at')->find($id);
    }

    private function today(): string
    {
        return CarbonImmutable::now($this->installation->timeZone())->toDateString();
    }
}
