<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Models\Briefing;
use App\Models\User;
use App\Organisation\Organisation;
use App\Support\Conflict;
use App\Support\Month;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * Fixes an issue of a month: the layout, what it showed, and the figures by which a later change is found.
 */
final readonly class PublishBriefing
{
    public function __construct(private PieceReader $pieces, private Issues $issues, private Organisation $organisation, private Connection $database, private Trail $trail) {}

    /**
     * @return int the number of the issue
     *
     * @throws Conflict when the draft is another one by now, or was published already
     */
    public function __invoke(Briefing $briefing, Period $month, int $version, User $user): int
    {
        // What it shows is judged before anything is locked: that takes its time, and nobody waits for it.
        $home = $this->organisation->unit($briefing->unit_id);
        $span = Span::from($briefing->span);
        $content = Content::ofJson($briefing->content);
        $answers = $this->pieces->answers($content, new PageView($home, $home, $month, $span), $user);
        $shown = ShownFigures::of($content, $answers);
        $spans = [];
        foreach ($answers as $answer) {
            $spans[$answer->id] = Span::from($answer->span);
        }
        $figures = ['shown' => (object) $shown, 'figures' => $this->issues->figures($shown, $spans, $month)];

        return $this->trail->within((string) Str::uuid(), '', function () use ($briefing, $month, $span, $version, $content, $answers, $figures, $user): int {
            $now = Briefing::query()->lockForUpdate()->findOrFail($briefing->id);
            if ($now->version !== $version || $briefing->version !== $version) {
                throw new Conflict('The page was changed or published since you opened it. Look at it again before you publish.', ['text' => $now->name, 'version' => $now->version, 'by' => '']);
            }
            $last = $this->database->table('briefing_issues')->where('briefing_id', $briefing->id)->max('number');
            $number = (is_int($last) ? $last : 0) + 1;
            $this->database->table('briefing_issues')->insert([
                'briefing_id' => $briefing->id, 'number' => $number, 'period' => Month::date($month), 'name' => $now->name, 'span' => $span->value, 'content' => $content->toJson(),
                'answer' => json_encode($answers, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION), 'figures' => json_encode($figures, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'published_at' => now(), 'published_by' => $user->id,
            ]);
            // The same once more is no second issue: it was sent for an older version.
            $this->database->table('briefings')->where('id', $briefing->id)->update(['version' => $version + 1]);

            return $number;
        });
    }
}
