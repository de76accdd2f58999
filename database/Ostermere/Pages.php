<?php

declare(strict_types=1);

namespace Database\Ostermere;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;

/**
 * The briefings of Ostermere, as its analyst has written them.
 */
final class Pages
{
    /** The months of which each was published. */
    public const PUBLISHED = ['2026-07', '2026-08'];

    /** @return list<array{name: string, unit: string, span: string, content: Content}> */
    public static function all(): array
    {
        return [
            ['name' => 'Board', 'unit' => 'OST', 'span' => 'yearToDate', 'content' => self::board()],
            ['name' => 'Network', 'unit' => 'NET', 'span' => 'month', 'content' => self::network()],
            ['name' => 'Customers', 'unit' => 'CUS', 'span' => 'month', 'content' => self::customers()],
            ['name' => 'Monday meeting', 'unit' => 'OST', 'span' => 'month', 'content' => self::weekly()],
            ['name' => 'Leakage, zone by zone', 'unit' => 'NET', 'span' => 'month', 'content' => self::zones()],
        ];
    }

    private static function board(): Content
    {
        return new Content([
            [new Piece('lead', PieceKind::Commentary, 12, text: 'Customers notice that supply is on course ({SUPPLY-INT to target} to target), but leakage is {LEAK to target} over its target for the year and, as the year has gone so far, ends it near {LEAK year end}. Two bursts on the Fenwick trunk main carry most of it; the survey is due in September. Cash collected stands at {CASH-IN}, {CASH-IN to target} to its target.')],
            [
                new Piece('leak', PieceKind::Figure, 3, kpis: ['LEAK']),
                new Piece('supply', PieceKind::Figure, 3, title: 'Supply interruptions', kpis: ['SUPPLY-INT']),
                new Piece('cash', PieceKind::Figure, 3, kpis: ['CASH-IN'], parts: ['needle', 'course', 'pace']),
                new Piece('stock', PieceKind::Figure, 3, kpis: ['STOCK'], parts: ['needle', 'columns', 'since', 'lastYear']),
            ],
            [
                new Piece('course', PieceKind::Line, 7, title: 'Leakage to the year end', kpis: ['LEAK']),
                new Piece('map', PieceKind::Map, 5, title: 'Where it leaks', line: 'A connection, by zone', kpis: ['Z-LEAK'], unit: 'NET', span: 'month'),
            ],
            [
                new Piece('age', PieceKind::Split, 4, title: 'Invoices not paid, by age', kpis: ['INVOICE-OPEN'], span: 'month', of: 'AGE'),
                new Piece('sector', PieceKind::Split, 4, title: 'and by sector', kpis: ['INVOICE-OPEN'], span: 'month', of: 'SECTOR', choices: ['form' => 'areas']),
                new Piece('doing', PieceKind::Actions, 4, title: 'What we do about it', choices: ['count' => '3']),
            ],
            [new Piece('all', PieceKind::Matrix, 12, title: 'Departments, over the months', choices: ['crossing' => 'units-months'])],
        ]);
    }

    private static function network(): Content
    {
        return new Content([
            [new Piece('lead', PieceKind::Commentary, 12, text: 'Leakage is at {LEAK}, {LEAK to target} to target; bursts are at {BURSTS} and repairs within five days at {REPAIR5}. Crews were tied up on the Fenwick trunk main until the 20th.')],
            [
                new Piece('leak', PieceKind::Figure, 3, kpis: ['LEAK'], parts: ['needle', 'course', 'target', 'since', 'yearEnd']),
                new Piece('bursts', PieceKind::Figure, 3, kpis: ['BURSTS'], parts: ['needle', 'course', 'target', 'lastYear']),
                new Piece('repair', PieceKind::Figure, 3, kpis: ['REPAIR5']),
                new Piece('nrw', PieceKind::Figure, 3, kpis: ['NRW'], parts: ['needle', 'columns', 'since', 'lastYear']),
            ],
            [
                new Piece('course', PieceKind::Line, 6, kpis: ['LEAK'], choices: ['mode' => 'gathered'], parts: ['zones', 'projection', 'lastYear']),
                new Piece('drivers', PieceKind::Drivers, 6, title: 'What leakage depends on', kpis: ['LEAK']),
            ],
            [
                new Piece('cases', PieceKind::Cases, 7, title: 'Repairs, from the call on', kpis: ['REPAIR-SHARE'], unit: 'NET', of: 'kind'),
                new Piece('attention', PieceKind::Exceptions, 5, title: 'What deserves attention', choices: ['count' => '3']),
            ],
            [new Piece('spread', PieceKind::Compare, 12, title: 'The zones beside each other', kpis: ['Z-LEAK', 'Z-BURSTS', 'Z-REPAIR', 'Z-NIGHT'])],
        ]);
    }

    private static function customers(): Content
    {
        return new Content([
            [new Piece('lead', PieceKind::Commentary, 12, text: 'Calls are answered as they should be again: {CALLS30} within 30 seconds. {FIRST} of what they ask is resolved at the first contact.')],
            [
                new Piece('calls', PieceKind::Scale, 4, kpis: ['CALLS30']),
                new Piece('first', PieceKind::Scale, 4, kpis: ['FIRST'], choices: ['form' => 'arc']),
                new Piece('complaints', PieceKind::Figure, 4, kpis: ['COMPLAINTS'], choices: ['since' => 'year']),
            ],
            [
                new Piece('topics', PieceKind::Split, 5, title: 'What cases are about', kpis: ['CASE-PEOPLE']),
                new Piece('course', PieceKind::Line, 7, title: 'Complaints, year on year', kpis: ['COMPLAINTS'], choices: ['mode' => 'years'], parts: []),
            ],
            [new Piece('courses', PieceKind::Courses, 6, title: 'How service stands', kpis: ['CALLS30', 'FIRST', 'BILLS', 'CASE-WAIT']), new Piece('doing', PieceKind::Actions, 6)],
            [new Piece('all', PieceKind::Table, 12, title: 'All that we steer by')],
        ]);
    }

    private static function weekly(): Content
    {
        return new Content([
            [
                new Piece('waiting', PieceKind::Figure, 3, kpis: ['WAITING'], parts: ['needle', 'target', 'since', 'columns']),
                new Piece('jobs', PieceKind::Figure, 3, kpis: ['JOBS-OPEN'], parts: ['needle', 'target', 'since', 'columns']),
                new Piece('calls', PieceKind::Figure, 3, kpis: ['CALLS30'], parts: ['needle', 'target', 'since', 'columns']),
                new Piece('stock', PieceKind::Figure, 3, kpis: ['STOCK'], parts: ['needle', 'since', 'columns']),
            ],
            [
                new Piece('attention', PieceKind::Exceptions, 7, title: 'What deserves attention', choices: ['count' => '8']),
                new Piece('late', PieceKind::Actions, 5, title: 'Overdue', choices: ['which' => 'overdue', 'count' => '8']),
            ],
            [new Piece('agreed', PieceKind::Text, 12, title: 'How we work', text: 'Ten minutes: what is new, what is late, who does what by when. Figures are not discussed that have not changed.')],
        ]);
    }

    private static function zones(): Content
    {
        return new Content([
            [
                new Piece('leak', PieceKind::Figure, 4, kpis: ['LEAK']),
                new Piece('course', PieceKind::Line, 8, kpis: ['LEAK'], parts: ['zones', 'trend', 'control']),
            ],
            [
                new Piece('map', PieceKind::Map, 5, title: 'Where', kpis: ['Z-LEAK'], choices: ['colour' => 'figure']),
                new Piece('courses', PieceKind::Courses, 7, title: 'Each zone on its own limits', kpis: ['Z-LEAK'], choices: ['over' => 'units']),
            ],
            [
                new Piece('two', PieceKind::Compare, 5, title: 'Leakage against night flow', kpis: ['Z-LEAK', 'Z-NIGHT'], choices: ['graphic' => 'two']),
                new Piece('ranks', PieceKind::Compare, 7, title: 'Is it the same ones?', kpis: ['Z-LEAK'], choices: ['graphic' => 'ranks']),
            ],
            [new Piece('worth', PieceKind::Compare, 12, title: 'What it would be worth', kpis: ['Z-LEAK', 'Z-BURSTS', 'Z-REPAIR', 'Z-NIGHT'], choices: ['graphic' => 'worth'])],
        ]);
    }
}
