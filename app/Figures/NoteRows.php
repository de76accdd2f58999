<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\PgArray;
use Illuminate\Database\Connection;
use stdClass;

/**
 * Reads notes with their authors, in bulk.
 */
final readonly class NoteRows
{
    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>  $measurements
     * @return array<int, array<string, stdClass>> by measurement and date, newest first
     */
    public function between(array $measurements, string $first, string $last): array
    {
        $notes = [];
        foreach ($this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($measurements)])->whereBetween('period', [$first, $last])
            ->orderByDesc('period')
            ->get(['kpi_unit_id', 'period', 'text', 'outlook', 'doing', 'version', 'users.name as author']) as $note) {
            $notes[$note->kpi_unit_id][$note->period] = $note;
        }

        return $notes;
    }
}
