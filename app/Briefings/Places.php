<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Kybernet\Core\Attention\LiveFigure;
use Kybernet\Core\Calendar\Span;

/**
 * Finds what the pieces of a page are about, as far as a person sees it.
 *
 * A KPI is that of the unit that is looked at; where it is not measured there, that of the one place highest below it. What
 * follows a narrower unit and has nothing there stays where the page is at home.
 */
final readonly class Places
{
    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights) {}

    /**
     * @param  list<Piece>  $pieces
     * @return list<Place> in their order
     */
    public function of(array $pieces, PageView $page, User $user): array
    {
        $codes = array_merge(...array_map(fn (Piece $piece): array => [...$piece->kpis, ...$this->named($piece)], $pieces), ...[[]]);
        $lines = $this->seen($codes, $user);

        return array_map(fn (Piece $piece): Place => $this->place($piece, $page, $lines, $user), $pieces);
    }

    /**
     * What the figures of a text are, by how they are written.
     *
     * @param  list<LiveFigure>  $figures
     * @return array<string, MeasurementLine> those that are there and seen
     */
    public function figures(array $figures, PageView $page, User $user): array
    {
        $lines = $this->seen(array_map(fn (LiveFigure $figure): string => $figure->kpi, $figures), $user);
        $found = [];
        foreach ($figures as $figure) {
            $unit = $figure->unit === '' ? $page->unit : $this->organisation->byCode($figure->unit);
            $line = $unit === null ? null : $this->measured($lines[$figure->kpi] ?? [], $unit, $page, $figure->unit !== '');
            if ($line !== null) {
                $found[(string) $figure] = $line;
            }
        }

        return $found;
    }

    /**
     * @param  list<string>  $codes
     * @return array<int|string, array<int, MeasurementLine>> by code and unit
     */
    private function seen(array $codes, User $user): array
    {
        $lines = [];
        foreach ($codes === [] ? [] : $this->rights->seen($user, $this->kpis->linesOf(array_values(array_unique($codes)))) as $line) {
            $lines[$line->code][$line->unitId] = $line;
        }

        return $lines;
    }

    /** @return list<string> codes of the KPIs that a text names */
    private function named(Piece $piece): array
    {
        return $piece->kind === PieceKind::Commentary ? array_map(fn (LiveFigure $figure): string => $figure->kpi, array_values(array_filter(LiveFigure::in($piece->text), fn (string|LiveFigure $part): bool => $part instanceof LiveFigure))) : [];
    }

    /** @param  array<int|string, array<int, MeasurementLine>>  $lines */
    private function place(Piece $piece, PageView $page, array $lines, User $user): Place
    {
        $span = $piece->span === '' ? $page->span : Span::from($piece->span);
        $unit = $piece->unit === '' ? $page->unit : $this->organisation->byCode($piece->unit);
        if ($unit === null || ! in_array($unit->id, $this->rights->units($user), true)) {
            return new Place($piece, $page->unit, $span, [], "There is no unit {$piece->unit}, or it is not for you.");
        }
        $found = $missing = [];
        foreach ($piece->kpis as $code) {
            $line = $this->measured($lines[$code] ?? [], $unit, $page, $piece->unit !== '');
            $line === null ? $missing[] = $code : $found[] = $line;
        }
        $only = count($found) === 1 && $piece->kind->mostKpis() === 1 ? $this->organisation->unit($found[0]->unitId) : $unit;
        if ($piece->kind === PieceKind::Map || $piece->kind === PieceKind::Compare || ($piece->kind === PieceKind::Courses && $piece->choice('over') === 'units')) {
            $only = $this->above($unit, $page, $piece, $lines);
        }

        return new Place($piece, $only, $span, $found, match (true) {
            $piece->kind->needsKpi() && $piece->kpis === [] => 'Choose a KPI.',
            $piece->kind === PieceKind::Courses && $piece->kpis === [] => 'Choose KPIs, or one over its units.',
            $missing !== [] && $piece->kind !== PieceKind::Map && $piece->kind !== PieceKind::Compare && $found === [] && $piece->kind !== PieceKind::Courses => implode(', ', $missing)." is not measured in {$unit->name}, or is not for you.",
            default => '',
        });
    }

    /**
     * What shows units beside each other shows those below the unit: of one that has none below it, those beside it.
     *
     * @param  array<int|string, array<int, MeasurementLine>>  $lines
     */
    private function above(Unit $unit, PageView $page, Piece $piece, array $lines): Unit
    {
        foreach ($piece->kpis as $code) {
            $inside = array_diff($this->organisation->below($unit->id, $page->month), [$unit->id]);
            if (array_intersect_key($lines[$code] ?? [], array_flip($inside)) !== []) {
                return $unit;
            }
        }

        return $piece->kpis === [] || $piece->unit !== '' || ! $page->isNarrowed() ? $unit : $page->home;
    }

    /** @param  array<int, MeasurementLine>  $lines  by unit */
    private function measured(array $lines, Unit $unit, PageView $page, bool $isPinned): ?MeasurementLine
    {
        return $lines[$unit->id] ?? $this->highest($lines, $unit, $page) ?? ($isPinned || ! $page->isNarrowed() ? null : $lines[$page->home->id] ?? $this->highest($lines, $page->home, $page));
    }

    /** @param  array<int, MeasurementLine>  $lines  by unit */
    private function highest(array $lines, Unit $unit, PageView $page): ?MeasurementLine
    {
        $inside = array_intersect_key($lines, array_flip($this->organisation->below($unit->id, $page->month)));
        $depths = array_map(fn (MeasurementLine $line): int => $this->organisation->depth($line->unitId), $inside);
        $highest = $depths === [] ? [] : array_keys($depths, min($depths), true);

        return count($highest) === 1 ? $inside[$highest[0]] : null;
    }
}
