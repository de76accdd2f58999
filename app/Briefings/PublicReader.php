<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\BriefingPage;
use App\Briefings\Views\Reading;
use App\Models\Briefing;
use App\Organisation\Organisation;
use App\Support\Installation;

/**
 * The latest issue of a briefing for somebody without an account: what was published, and nothing that leads elsewhere.
 */
final readonly class PublicReader
{
    public function __construct(private Issues $issues, private Masks $masks, private Organisation $organisation, private Installation $installation) {}

    /** Null where nothing is published. */
    public function page(Briefing $briefing, bool $isMasked): ?Reading
    {
        $issue = $this->issues->find($briefing, null, null);
        if ($issue === null) {
            return null;
        }
        $home = $this->organisation->unit($briefing->unit_id);
        $page = new BriefingPage($briefing->code, $issue->name, $home->code, $home->name, $issue->line->span, $issue->line->period, 'issue', $issue->content->bands, $issue->answers, $issue->line, [], [], 0, false, 0, '', null, false);
        /** @var array<string, mixed> $plain */
        $plain = json_decode(json_encode($page, JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION), true, flags: JSON_THROW_ON_ERROR);

        return new Reading([$isMasked ? $this->masks->over($plain, $home) : $plain], '', $this->installation->locale(), $this->units($isMasked, $home->id));
    }

    /** @return array<string, string> names of units by what they are called on the page */
    private function units(bool $isMasked, int $home): array
    {
        $names = [];
        foreach ($this->organisation->units() as $unit) {
            $isHome = in_array($unit->id, $this->organisation->way($home), true) || $unit->id === $home;
            if (! $isMasked || $isHome) {
                $names[$unit->code] = $unit->name;
            }
        }

        return $names;
    }
}
