<?php

declare(strict_types=1);

namespace Database\Ostermere;

use App\Briefings\PublishBriefing;
use App\Briefings\SaveBriefing;
use App\Models\Unit;
use App\Models\User;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * Makes the briefings of Ostermere and publishes them, as its analyst does.
 */
final readonly class PublishPages
{
    public function __construct(private SaveBriefing $save, private PublishBriefing $publish) {}

    public function __invoke(): void
    {
        $analyst = User::query()->where('email', Accounts::all()[0]['email'])->firstOrFail();
        foreach (Pages::all() as $page) {
            $briefing = $this->save->make($page['name'], Unit::query()->where('code', $page['unit'])->firstOrFail(), Span::from($page['span']), $page['content'], $analyst);
            foreach (Pages::PUBLISHED as $month) {
                ($this->publish)($briefing, Period::parse($month), $briefing->version, $analyst);
                $briefing->refresh();
            }
        }
    }
}
