<?php

declare(strict_types=1);

namespace App\Briefings\Content;

/**
 * What a piece of a briefing shows. What each can be asked for stands here alone; pages that write a briefing are told.
 */
enum PieceKind: string
{
    case Figure = 'figure';
    case Courses = 'courses';
    case Scale = 'scale';
    case Line = 'line';
    case Table = 'table';
    case Matrix = 'matrix';
    case Compare = 'compare';
    case Split = 'split';
    case Map = 'map';
    case Exceptions = 'exceptions';
    case Actions = 'actions';
    case Cases = 'cases';
    case Drivers = 'drivers';
    case Commentary = 'commentary';
    case Text = 'text';

    /** Most KPIs that one piece can show; none where it is about no KPI. */
    public function mostKpis(): int
    {
        return match ($this) {
            self::Figure, self::Scale, self::Line, self::Split, self::Map, self::Cases, self::Drivers => 1,
            self::Compare => 8,
            self::Courses, self::Table => 24,
            self::Matrix => 1,
            self::Exceptions, self::Actions, self::Commentary, self::Text => 0,
        };
    }

    /** Whether it says nothing until a KPI is chosen. */
    public function needsKpi(): bool
    {
        return $this->mostKpis() === 1 && $this !== self::Matrix;
    }

    /** Whether its figures count among those that a reader takes in. */
    public function isOfFigures(): bool
    {
        return match ($this) {
            self::Figure, self::Scale => true,
            default => false,
        };
    }

    public function hasText(): bool
    {
        return $this === self::Commentary || $this === self::Text;
    }

    /** Whether it can stand on a unit or a span of its own. */
    public function isPinned(): bool
    {
        return $this !== self::Text;
    }

    /**
     * What can be chosen, the first one where nobody has.
     *
     * @return array<string, non-empty-list<string>> by the name of the choice
     */
    public function choices(): array
    {
        $written = ['written' => ['short', 'full'], 'decimals' => ['own', '0', '1', '2', '3']];

        return match ($this) {
            self::Figure => ['since' => ['period', 'quarter', 'year'], ...$written],
            self::Courses => ['over' => ['kpis', 'units']],
            self::Scale => ['form' => ['straight', 'arc'], ...$written],
            self::Line => ['mode' => ['months', 'gathered', 'quarters', 'years'], 'reach' => ['year', 'three']],
            self::Table => ['rows' => ['all', 'red', 'bad']],
            self::Matrix => ['crossing' => ['units-kpis', 'kpis-months', 'units-months'], 'months' => ['12', '24']],
            self::Compare => ['graphic' => ['spread', 'table', 'two', 'worth', 'ranks']],
            self::Split => ['form' => ['bars', 'areas']],
            self::Map => ['colour' => ['status', 'figure']],
            self::Exceptions => ['count' => ['5', '3', '8', '12']],
            self::Actions => ['which' => ['open', 'overdue'], 'count' => ['5', '3', '8', '12']],
            self::Drivers => ['depth' => ['2', '1', '3']],
            self::Cases, self::Commentary, self::Text => [],
        };
    }

    /**
     * What can be shown or hidden; those that stand first are shown where nobody has chosen.
     *
     * @return array{list<string>, list<string>} shown to begin with, and the others
     */
    public function parts(): array
    {
        return match ($this) {
            self::Figure => [['needle', 'course', 'target', 'since'], ['lastYear', 'columns', 'pace', 'yearEnd']],
            self::Line => [['zones', 'projection'], ['lastYear', 'trend', 'average', 'control']],
            self::Scale => [['before', 'goal', 'ranges'], ['lastYear']],
            default => [[], []],
        };
    }

    /** @return int twelfths that it takes to begin with */
    public function width(): int
    {
        return match ($this) {
            self::Figure, self::Scale => 3,
            self::Courses, self::Split, self::Actions, self::Text => 4,
            self::Map => 5,
            self::Line, self::Cases, self::Drivers, self::Exceptions => 6,
            self::Table, self::Matrix, self::Compare, self::Commentary => 12,
        };
    }
}
