<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Compare\LikeUnits;
use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Rights;
use Kybernet\Core\Calendar\Period;

/**
 * Puts together what a page for a unit begins with: its weightiest KPIs, in the order in which a reader asks.
 */
final readonly class Beginnings
{
    private const HEADLINES = 4;

    public function __construct(private MeasurementStore $kpis, private LikeUnits $likeUnits, private Rights $rights) {}

    /** @param  string  $kpi  code of the KPI that a page over its units is about */
    public function content(Beginning $beginning, Unit $unit, Period $month, string $kpi, User $user): Content
    {
        if ($beginning === Beginning::Nothing) {
            return new Content([]);
        }
        $own = $this->rights->seen($user, $this->kpis->lines([$unit->id]));
        usort($own, fn (MeasurementLine $one, MeasurementLine $other): int => $other->weight->compareTo($one->weight));
        $heads = array_slice(array_values(array_unique(array_map(fn (MeasurementLine $line): string => $line->code, $own))), 0, self::HEADLINES);
        $first = $heads[0] ?? '';
        $shared = array_map(strval(...), array_slice(array_keys($this->likeUnits->under($unit, '', $month, $user)->measured), 0, 5));

        return new Content(array_values(array_filter(array_map(
            fn (array $band): array => array_values(array_filter($band, fn (?Piece $piece): bool => $piece !== null)),
            match ($beginning) {
                Beginning::Organisation => [
                    [$this->lead()],
                    self::figures($heads),
                    [$this->line($first, 7, 'a'), new Piece('exceptions', PieceKind::Exceptions, 5)],
                    [new Piece('matrix', PieceKind::Matrix, 7), new Piece('actions', PieceKind::Actions, 5)],
                ],
                Beginning::Department => [
                    [$this->lead()],
                    self::figures($heads),
                    [$this->line($first, 6, 'a'), $this->line($heads[1] ?? '', 6, 'b')],
                    [new Piece('table', PieceKind::Table, 12)],
                    [new Piece('exceptions', PieceKind::Exceptions, 6), new Piece('actions', PieceKind::Actions, 6)],
                ],
                Beginning::Weekly => [
                    self::figures($heads, ['since' => 'period'], ['needle', 'target', 'since', 'columns']),
                    [new Piece('exceptions', PieceKind::Exceptions, 6, choices: ['count' => '8']), new Piece('actions', PieceKind::Actions, 6, choices: ['count' => '8'])],
                ],
                Beginning::OneKpi => self::oneKpi($kpi === '' ? $shared[0] ?? $first : $kpi, array_map(fn (MeasurementLine $line): string => $line->code, $own)),
                Beginning::MonthEnd => [
                    [$this->lead()],
                    [new Piece('table', PieceKind::Table, 12)],
                    [new Piece('exceptions', PieceKind::Exceptions, 12, choices: ['count' => '12'])],
                    [new Piece('actions', PieceKind::Actions, 12, choices: ['count' => '12'])],
                ],
            },
        ), fn (array $band): bool => $band !== [])));
    }

    private function lead(): Piece
    {
        return new Piece('lead', PieceKind::Commentary, 12);
    }

    private function line(string $kpi, int $width, string $id): ?Piece
    {
        return $kpi === '' ? null : new Piece("line{$id}", PieceKind::Line, $width, kpis: [$kpi]);
    }

    /**
     * @param  list<string>  $kpis
     * @param  array<string, string>  $choices
     * @param  list<string>|null  $parts
     * @return list<Piece>
     */
    private static function figures(array $kpis, array $choices = [], ?array $parts = null): array
    {
        return array_map(fn (string $kpi, int $at): Piece => new Piece("figure{$at}", PieceKind::Figure, 3, kpis: [$kpi], choices: $choices, parts: $parts), $kpis, array_keys($kpis));
    }

    /**
     * @param  list<string>  $own  what the unit measures itself
     * @return list<list<Piece|null>>
     */
    private static function oneKpi(string $kpi, array $own): array
    {
        return $kpi === '' ? [] : [
            // Where the unit has no figure of its own, there is no course of it either.
            ! in_array($kpi, $own, true) ? [] : [new Piece('figure', PieceKind::Figure, 4, kpis: [$kpi]), new Piece('line', PieceKind::Line, 8, kpis: [$kpi])],
            [new Piece('map', PieceKind::Map, 5, kpis: [$kpi]), new Piece('courses', PieceKind::Courses, 7, kpis: [$kpi], choices: ['over' => 'units'])],
            [new Piece('compare', PieceKind::Compare, 12, kpis: [$kpi], choices: ['graphic' => 'ranks'])],
        ];
    }
}
