<?php

declare(strict_types=1);

namespace App\Review;

use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Review\Views\FoundText;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Str;
use stdClass;

/**
 * Finds notes and actions by the words in them, the newest first.
 */
final readonly class TextFinder
{
    private const SHOWN = 8;

    public function __construct(private Connection $database, private Organisation $organisation, private Rights $rights) {}

    /** @return list<FoundText> */
    public function find(string $words, User $user): array
    {
        return [
            ...$this->search('action', 'actions', "concat_ws(' ', what, who, outcome)", 'what', $words, $user),
            ...$this->search('note', 'notes', "concat_ws(' ', text, outlook, doing)", 'text', $words, $user),
        ];
    }

    /** @return list<FoundText> */
    private function search(string $kind, string $table, string $searched, string $shown, string $words, User $user): array
    {
        $query = $this->database->table("{$table} AS found")
            ->join('kpi_unit', 'kpi_unit.id', '=', 'found.kpi_unit_id')
            ->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->orderByDesc('found.period')->orderByDesc('found.id')->limit(self::SHOWN)
            ->select(['kpis.code', 'kpis.name', 'kpi_unit.unit_id', 'found.period', "found.{$shown} AS shown"]);
        foreach (Str::of($words)->squish()->explode(' ') as $word) {
            $query->whereRaw("{$searched} ILIKE ?", ['%'.addcslashes($word, '\\%_').'%']);
        }
        $sight = $this->rights->sight($user);
        $found = $query
            ->when(! $sight->isWhole(), fn (Builder $query): Builder => $query->whereRaw('(kpi_unit.unit_id = ANY(?::bigint[]) OR kpi_unit.owner_id = ANY(?::bigint[]))', [PgArray::of($sight->units ?? []), PgArray::of($sight->owners)]));

        return array_values($found->get()->map(fn (stdClass $row): FoundText => new FoundText(
            $kind,
            $row->code,
            $row->name,
            $this->organisation->unit($row->unit_id)->code,
            substr($row->period, 0, 7),
            $row->shown,
        ))->all());
    }
}
