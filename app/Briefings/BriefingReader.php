<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Views\BriefingLine;
use App\Briefings\Views\BriefingPage;
use App\Briefings\Views\IssueLine;
use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * Reads briefings: an issue as it was published where the month has one and nobody narrowed it, otherwise the layout of the
 * latest issue with the figures of today; for who writes it also the draft.
 */
final readonly class BriefingReader
{
    public function __construct(private PieceReader $pieces, private Issues $issues, private Sights $sights, private Organisation $organisation, private Rights $rights, private Connection $database) {}

    /** @return list<BriefingLine> those that the person reads or writes, in tree order of their units */
    public function all(User $user): array
    {
        $latest = $this->issues->latest();
        $named = $this->database->table('briefing_readers')->where('user_id', $user->id)->pluck('briefing_id')->flip()->all();
        $open = array_flip($this->rights->units($user));
        $lines = [];
        foreach (Briefing::query()->orderBy('name')->get() as $briefing) {
            $mine = $this->rights->analyses($user, $briefing->unit_id);
            if (! $mine && ($briefing->retired_at !== null || ! isset($open[$briefing->unit_id]) || ! isset($latest[$briefing->id]) || ($briefing->audience === 'people' && ! isset($named[$briefing->id])))) {
                continue;
            }
            $issue = $latest[$briefing->id] ?? null;
            $unit = $this->organisation->unit($briefing->unit_id);
            $lines[$briefing->unit_id][] = new BriefingLine(
                $briefing->code,
                $briefing->name,
                $unit->code,
                $unit->name,
                $briefing->span,
                $briefing->audience,
                $issue === null ? null : Issue::line($issue),
                $mine && self::differs($briefing, is_string($issue?->content) ? $issue->content : null, is_string($issue?->title) ? $issue->title : ''),
                CarbonImmutable::parse($briefing->kept_at)->utc()->toIso8601ZuluString(),
                count(Content::ofJson($mine || $issue === null ? $briefing->content : (is_string($issue->content) ? $issue->content : '[]'))->pieces()),
                $mine,
                $briefing->retired_at !== null,
            );
        }

        return array_merge(...array_map(fn (int $unit): array => $lines[$unit] ?? [], array_keys($this->organisation->units())), ...[[]]);
    }

    /**
     * @param  int|null  $number  of an issue; null for that of the month
     * @param  bool  $draft  what is being written, for who writes it
     */
    public function page(Briefing $briefing, Period $month, Span $span, Unit $unit, ?int $number, bool $draft, User $user, ?Period $week = null): BriefingPage
    {
        $home = $this->organisation->unit($briefing->unit_id);
        $mine = $this->rights->analyses($user, $briefing->unit_id);
        $issues = $this->issues->all($briefing);
        $latest = $issues === [] ? null : $this->issues->find($briefing, null, null);
        $page = new PageView($unit, $home, $month, $span, $week);
        if ($draft && $mine) {
            $content = Content::ofJson($briefing->content);

            return $this->view($briefing, $page, 'draft', $content, $this->pieces->answers($content, $page, $user), $issues[0] ?? null, $issues, [], 0, $mine, $latest);
        }
        $issue = $number === null && ($page->isNarrowed() || $week !== null || $span->value !== $this->spanOf($issues, $month, $briefing)) ? null : $this->issues->find($briefing, $number, $number === null ? $month : null);
        if ($issue !== null) {
            $hidden = $this->sights->withheld($issue->shown, $user);
            $page = new PageView($home, $home, Period::parse($issue->line->period), Span::from($issue->line->span));

            return $this->view($briefing, $page, 'issue', self::without($issue->content, $hidden), array_values(array_filter($issue->answers, fn (array $answer): bool => ! in_array($answer['id'] ?? '', $hidden, true))), $issue->line, $issues, $this->issues->changed($issue, $hidden), count($hidden), $mine, $latest, $issue->name);
        }
        if ($latest === null) {
            return $this->view($briefing, $page, 'none', new Content([]), [], null, [], [], 0, $mine, null);
        }

        return $this->view($briefing, $page, 'today', $latest->content, $this->pieces->answers($latest->content, $page, $user), $latest->line, $issues, [], 0, $mine, $latest, $latest->name);
    }

    /**
     * @param  list<IssueLine>  $issues
     * @return string the span of the month's latest issue
     */
    private function spanOf(array $issues, Period $month, Briefing $briefing): string
    {
        foreach ($issues as $issue) {
            if ($issue->period === $month->key()) {
                return $issue->span;
            }
        }

        return $briefing->span;
    }

    /** @param  list<string>  $hidden */
    private static function without(Content $content, array $hidden): Content
    {
        $bands = [];
        foreach ($content->bands as $band) {
            $left = array_values(array_filter($band, fn ($piece): bool => ! in_array($piece->id, $hidden, true)));
            if ($left !== []) {
                $bands[] = $left;
            }
        }

        return new Content($bands);
    }

    private static function differs(Briefing $briefing, ?string $published, string $name): bool
    {
        return $published === null || $name !== $briefing->name || Content::ofJson($published)->toJson() !== Content::ofJson($briefing->content)->toJson();
    }

    /**
     * @param  list<Views\PieceView|array<string, mixed>>  $answers
     * @param  list<IssueLine>  $issues
     * @param  list<Views\ChangedFigure>  $changed
     */
    private function view(Briefing $briefing, PageView $page, string $shows, Content $content, array $answers, ?IssueLine $issue, array $issues, array $changed, int $withheld, bool $mine, ?Issue $latest, ?string $name = null): BriefingPage
    {
        $keeper = $mine && $briefing->kept_by !== null ? $this->database->table('users')->where('id', $briefing->kept_by)->value('name') : null;

        return new BriefingPage(
            $briefing->code,
            $name ?? $briefing->name,
            $page->home->code,
            $page->home->name,
            $briefing->span,
            $page->month->key(),
            $shows,
            $content->bands,
            $answers,
            $issue,
            $issues,
            $changed,
            $withheld,
            $mine,
            $briefing->version,
            CarbonImmutable::parse($briefing->kept_at)->utc()->toIso8601ZuluString(),
            is_string($keeper) ? $keeper : null,
            $mine && self::differs($briefing, $latest?->content->toJson(), $latest->name ?? ''),
        );
    }
}
