<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\ArrangementView;
use App\Briefings\Views\ReaderView;
use App\Models\Briefing;
use Illuminate\Database\Connection;

/**
 * For whom a briefing is, and who could be.
 */
final readonly class ArrangementReader
{
    public function __construct(private Connection $database) {}

    public function read(Briefing $briefing): ArrangementView
    {
        $chosen = $this->database->table('briefing_readers')->where('briefing_id', $briefing->id)->pluck('user_id')->flip()->all();
        /** @var list<object{id: int, name: string}> $people */
        $people = $this->database->table('users')->where('is_program', false)->whereNull('blocked_at')->orderBy('name')->get(['id', 'name'])->all();

        return new ArrangementView($briefing->span, $briefing->audience, $briefing->version, array_map(fn (object $person): ReaderView => new ReaderView($person->id, $person->name, isset($chosen[$person->id])), array_values($people)));
    }
}
