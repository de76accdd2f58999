<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Organisation\Views\FoundShape;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;

/**
 * What units look like on a map. Regions of a file find their units by code, former code or name; others wait for somebody to
 * say whose they are.
 */
final readonly class UnitShapes
{
    public function __construct(private Connection $database, private Organisation $organisation, private Trail $trail) {}

    /**
     * @param  list<array{names: list<string>, shape: array<string, mixed>, points: int}>  $regions
     * @return list<FoundShape> each region with the unit that it seems to be
     */
    public function match(array $regions): array
    {
        $known = [];
        foreach ($this->organisation->units() as $unit) {
            $known[mb_strtolower($unit->name)] ??= $unit->code;
        }
        // A code goes before another's name.
        foreach ($this->organisation->units() as $unit) {
            $known[mb_strtolower($unit->code)] = $unit->code;
        }
        $has = $this->database->table('unit_shapes')->join('units', 'units.id', '=', 'unit_id')->pluck('points', 'code')->all();

        return array_map(function (array $region) use ($known, $has): FoundShape {
            $codes = array_values(array_filter(array_map(fn (string $name): ?string => $known[mb_strtolower($name)] ?? null, $region['names']), is_string(...)));

            return new FoundShape($region['names'], $codes[0] ?? null, $region['points'], isset($codes[0], $has[$codes[0]]));
        }, $regions);
    }

    /**
     * @param  list<array{names: list<string>, shape: array<string, mixed>, points: int}>  $regions
     * @param  array<int, string>  $codes  whose shape a region is, by its place in the file
     * @return int how many units have theirs from it
     */
    public function take(array $regions, array $codes): int
    {
        $rows = [];
        foreach ($codes as $at => $code) {
            $unit = $this->organisation->byCode($code);
            if ($unit !== null && isset($regions[$at])) {
                $rows[$unit->id] = ['unit_id' => $unit->id, 'shape' => json_encode($regions[$at]['shape'], JSON_THROW_ON_ERROR | JSON_PRESERVE_ZERO_FRACTION), 'points' => $regions[$at]['points']];
            }
        }
        // In one order, whoever else takes some at the same time.
        ksort($rows);
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('unit_shapes')->upsert(array_values($rows), 'unit_id'));

        return count($rows);
    }

    public function remove(Unit $unit): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('unit_shapes')->where('unit_id', $unit->id)->delete());
    }
}
