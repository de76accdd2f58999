<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Briefings\Content\Content;
use App\Briefings\Content\Piece;
use App\Briefings\Content\PieceKind;
use App\Briefings\SaveBriefing;
use App\Console\Concerns\GeneratesUnits;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Span;

/**
 * Times a briefing of twelve pieces over generated units, inside a transaction that is undone: nothing of it stays.
 */
final class BenchBriefings extends Command
{
    use GeneratesUnits;

    private const MONTHS = 36;

    private const KPIS = 8;

    private const REQUESTS = 20;

    protected $signature = 'bench:briefings {units=12 : below the unit of the page, with 8 KPIs each}';

    protected $description = 'Time a briefing of twelve pieces';

    public function handle(Connection $database, SaveBriefing $save): int
    {
        $units = max(2, (int) $this->argument('units'));
        $database->beginTransaction();
        try {
            $database->select("SELECT set_config('kybernet.audit', 'off', true)");
            $above = $this->unit('BENCH0', 'department', Unit::query()->where('parent_id', null)->firstOrFail()->id);
            $this->measure($database, 'BB-', self::KPIS, [$above, ...array_map(fn (int $each): int => $this->unit("BENCH0-{$each}", 'zone', $above), range(1, $units))]);
            $this->fill($database, self::MONTHS);
            $pieces = [
                ...array_map(fn (int $at): Piece => new Piece("f{$at}", PieceKind::Figure, 3, kpis: ["BB-{$at}"]), range(1, 5)),
                new Piece('table', PieceKind::Table, 12), new Piece('line', PieceKind::Line, 6, kpis: ['BB-1']), new Piece('text', PieceKind::Commentary, 12, text: 'At {BB-1}, {BB-1 to target}; {BB-2} and {BB-3}.'),
                new Piece('over', PieceKind::Courses, 6, kpis: ['BB-2'], choices: ['over' => 'units']), new Piece('matrix', PieceKind::Matrix, 12, choices: ['crossing' => 'kpis-months']),
                new Piece('exceptions', PieceKind::Exceptions, 6), new Piece('actions', PieceKind::Actions, 6),
            ];
            $code = $save->make('Bench', Unit::query()->findOrFail($above), Span::Month, new Content(array_map(fn (Piece $piece): array => [$piece], $pieces)), User::query()->firstOrFail())->code;
            $this->line("a page of 12 pieces over {$units} units × ".self::KPIS.' KPIs');
            $this->time($database, 'the page', "/api/briefings/{$code}?period=2026-08&draft=1", self::REQUESTS);
            $this->time($database, 'for the year to date', "/api/briefings/{$code}?period=2026-08&span=yearToDate&draft=1", self::REQUESTS);
            $this->time($database, 'the list of briefings', '/api/briefings', self::REQUESTS);
            $this->line(sprintf('peak memory %d MB', memory_get_peak_usage() / 1e6));
        } finally {
            $database->rollBack();
        }

        return self::SUCCESS;
    }
}
