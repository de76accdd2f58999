<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Support\PgArray;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Puts a unit in another place among those beside it. The whole tree is numbered anew, so that every list has that order.
 */
final readonly class OrderUnits
{
    public function __construct(private Connection $database, private Trail $trail) {}

    /**
     * @param  string|null  $after  code of the one behind which it stands; null for the first place
     *
     * @throws ValidationException where that one stands elsewhere by now
     */
    public function __invoke(Unit $unit, ?string $after): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($unit, $after): void {
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $organisation = new Organisation;
            $unit->refresh();
            $beside = array_values(array_filter($unit->parent_id === null ? [] : $organisation->children($unit->parent_id), fn (Unit $each): bool => $each->id !== $unit->id));
            $at = 0;
            foreach ($beside as $index => $each) {
                $at = $each->code === $after ? $index + 1 : $at;
            }
            if ($unit->parent_id === null || ($after !== null && $at === 0)) {
                throw ValidationException::withMessages(['after' => 'It does not stand beside that unit any longer.']);
            }
            array_splice($beside, $at, 0, [$unit]);
            // Those inside of its neighbours follow them.
            $block = array_merge(...array_map(fn (Unit $each): array => $organisation->below($each->id), $beside));
            $inside = array_flip($block);
            $order = [];
            foreach ($organisation->below(array_key_first($organisation->units()) ?? 0) as $id) {
                if (! isset($inside[$id])) {
                    $order[] = $id;
                } elseif ($block !== []) {
                    $order = [...$order, ...$block];
                    $block = [];
                }
            }
            $this->database->update('UPDATE units SET position = place.ordinality - 1 FROM unnest(?::bigint[]) WITH ORDINALITY AS place (id, ordinality) WHERE place.id = units.id', [PgArray::of($order)]);
        });
    }
}
