<?php

declare(strict_types=1);

namespace App\Register;

use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Keeps themes and objectives: renamed, ordered, added, and removed where no KPI has them.
 *
 * @phpstan-type Items list<array{id: int|null, code: string, name: string}>
 */
final readonly class SaveLists
{
    public function __construct(private Connection $database, private Trail $trail) {}

    /**
     * @param  Items  $themes
     * @param  Items  $objectives
     *
     * @throws ValidationException when one that is in use would be removed
     */
    public function __invoke(array $themes, array $objectives): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($themes, $objectives): void {
            $this->save('themes', 'theme_id', array_map(fn (array $item): array => ['id' => $item['id'], 'name' => $item['name']], $themes));
            $this->save('objectives', 'objective_id', $objectives);
        });
    }

    /** @param  list<array{id: int|null, code?: string, name: string}>  $items */
    private function save(string $table, string $column, array $items): void
    {
        $kept = array_values(array_filter(array_column($items, 'id'), is_int(...)));
        $used = $this->database->table($table)->join('kpis', "kpis.{$column}", '=', "{$table}.id")->whereNotIn("{$table}.id", $kept)->value("{$table}.name");
        if ($used !== null) {
            throw ValidationException::withMessages([$table => "'{$used}' is used by KPIs, so it stays."]);
        }
        $this->database->table($table)->whereNotIn('id', $kept)->delete();
        // Names are unique; two that change places would collide half way.
        $this->database->table($table)->whereIn('id', $kept)->update(['name' => $this->database->raw("'\u{1}' || id")]);
        foreach ($items as $position => $item) {
            $columns = ['name' => $item['name'], 'position' => $position + 1] + (isset($item['code']) ? ['code' => $item['code']] : []);
            $item['id'] === null
                ? $this->database->table($table)->insert($columns)
                : $this->database->table($table)->where('id', $item['id'])->update($columns);
        }
    }
}
