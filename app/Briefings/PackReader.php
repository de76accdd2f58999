<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Briefings\Views\BriefingPage;
use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * Several pages as one: briefings, and the scorecard and the exceptions of a unit laid out like briefings.
 */
final readonly class PackReader
{
    private const EXCEPTIONS = '12';

    public function __construct(private BriefingReader $briefings, private PieceReader $pieces, private Organisation $organisation, private Rights $rights) {}

    public function briefing(Briefing $briefing, Period $month, User $user): BriefingPage
    {
        return $this->briefings->page($briefing, $month, Span::from($briefing->span), $this->organisation->unit($briefing->unit_id), null, false, $user);
    }

    /** The unit's own KPIs and those of each unit below it. */
    public function scorecard(Unit $unit, Period $month, Span $span, User $user): BriefingPage
    {
        $seen = array_flip($this->rights->units($user));
        $below = array_values(array_filter($this->organisation->children($unit->id, $month), fn (Unit $child): bool => isset($seen[$child->id])));
        $isShort = count($below) <= Content::MOST_BANDS - 1;

        return $this->made("Scorecard, {$unit->name}", $unit, $month, $span, array_map(
            fn (Unit $each, int $at): array => [new Piece("table{$at}", PieceKind::Table, Content::TWELFTHS, $each->name, unit: $each->code)],
            [$unit, ...($isShort && $unit->parent_id === null ? $below : [])],
            array_keys([$unit, ...($isShort && $unit->parent_id === null ? $below : [])]),
        ), $user);
    }

    public function exceptions(Unit $unit, Period $month, Span $span, User $user): BriefingPage
    {
        return $this->made("Exceptions, {$unit->name}", $unit, $month, $span, [
            [new Piece('exceptions', PieceKind::Exceptions, Content::TWELFTHS, choices: ['count' => self::EXCEPTIONS])],
            [new Piece('actions', PieceKind::Actions, Content::TWELFTHS, choices: ['count' => self::EXCEPTIONS])],
        ], $user);
    }

    /** @param  list<non-empty-list<Piece>>  $bands */
    private function made(string $name, Unit $unit, Period $month, Span $span, array $bands, User $user): BriefingPage
    {
        $answers = $this->pieces->answers(new Content($bands), new PageView($unit, $unit, $month, $span), $user);
        $filled = array_values(array_filter(array_keys($bands), fn (int $at): bool => $answers[$at]->rows !== []));

        return new BriefingPage('', $name, $unit->code, $unit->name, $span->value, $month->key(), 'today', array_map(fn (int $at): array => $bands[$at], $filled), array_map(fn (int $at): Views\PieceView => $answers[$at], $filled), null, [], [], 0, false, 0, '', null, false);
    }
}
