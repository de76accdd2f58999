<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use App\Support\Conflict;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\Span;

/**
 * Makes a briefing, keeps its draft, changes for whom it is, retires it.
 */
final readonly class SaveBriefing
{
    private const LONGEST_CODE = 48;

    public function __construct(private Connection $database, private Trail $trail) {}

    public function make(string $name, Unit $unit, Span $span, Content $content, User $user): Briefing
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($name, $unit, $span, $content, $user): Briefing {
            $slug = substr(Str::slug($name), 0, self::LONGEST_CODE);
            $stem = $slug === '' ? 'briefing' : $slug;
            // Two who make one of the same name at once each get a code of their own.
            $this->database->select("SELECT pg_advisory_xact_lock(hashtext('kybernet.briefings'))");
            $code = $stem;
            for ($next = 2; Briefing::query()->where('code', $code)->exists(); $next++) {
                $code = "{$stem}-{$next}";
            }
            $id = $this->database->table('briefings')->insertGetId(['code' => $code, 'name' => $name, 'unit_id' => $unit->id, 'span' => $span->value, 'content' => $content->toJson(), 'kept_at' => now(), 'kept_by' => $user->id]);

            return Briefing::query()->findOrFail($id);
        });
    }

    /**
     * Keeps the draft as it is written. The same once more, by the same person, is the answer that was lost.
     *
     * @return int its version now
     *
     * @throws Conflict when somebody else kept another one since it was read
     */
    public function keep(Briefing $briefing, string $name, Content $content, int $version, User $user): int
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($briefing, $name, $content, $version, $user): int {
            $now = Briefing::query()->lockForUpdate()->findOrFail($briefing->id);
            $isSame = $now->name === $name && Content::ofJson($now->content)->toJson() === $content->toJson();
            if ($now->version === $version + 1 && $isSame && $now->kept_by === $user->id) {
                return $now->version;
            }
            $this->refuseOlder($now, $version);
            if ($isSame) {
                return $version;
            }
            $this->database->table('briefings')->where('id', $briefing->id)->update(['name' => $name, 'content' => $content->toJson(), 'version' => $version + 1, 'kept_at' => now(), 'kept_by' => $user->id]);

            return $version + 1;
        });
    }

    /**
     * @param  list<int>  $readers  where it is only for the people named
     *
     * @throws Conflict
     */
    public function arrange(Briefing $briefing, Span $span, string $audience, array $readers, int $version): int
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($briefing, $span, $audience, $readers, $version): int {
            $this->refuseOlder(Briefing::query()->lockForUpdate()->findOrFail($briefing->id), $version);
            $this->database->table('briefings')->where('id', $briefing->id)->update(['span' => $span->value, 'audience' => $audience, 'version' => $version + 1]);
            $this->database->table('briefing_readers')->where('briefing_id', $briefing->id)->delete();
            $this->database->table('briefing_readers')->insert(array_map(fn (int $user): array => ['briefing_id' => $briefing->id, 'user_id' => $user], $audience === 'people' ? array_values(array_unique($readers)) : []));

            return $version + 1;
        });
    }

    public function retire(Briefing $briefing, bool $isRetired): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('briefings')->where('id', $briefing->id)->update(['retired_at' => $isRetired ? now() : null]));
    }

    private function refuseOlder(Briefing $now, int $version): void
    {
        if ($now->version !== $version) {
            $by = $this->database->table('users')->where('id', $now->kept_by)->value('name');
            throw new Conflict('Somebody else has changed this page since you opened it. What you have is kept here, and not saved.', ['text' => $now->name, 'version' => $now->version, 'by' => is_string($by) ? $by : '']);
        }
    }
}
