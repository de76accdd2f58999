<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Views\AnsweringPerson;
use App\Organisation\Views\MapShape;
use App\Organisation\Views\MeasuredThere;
use App\Organisation\Views\StoodBefore;
use App\Organisation\Views\UnitPage;
use App\Support\Month;
use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * One unit by itself: what is measured there, who answers for it, how it stood before, and what it looks like on a map.
 */
final readonly class UnitPageReader
{
    private const MOST_SHAPES = 200;

    /** Who answers for a unit, and not only for what is theirs in it. */
    private const ANSWER = [Role::Head, Role::Analyst];

    public function __construct(private Connection $database, private Organisation $organisation, private Rights $rights) {}

    public function read(Unit $unit, User $user): UnitPage
    {
        return new UnitPage(
            $unit->code,
            $unit->name,
            $unit->kind,
            array_values(array_filter($this->database->table('unit_codes')->where('unit_id', $unit->id)->orderBy('code')->pluck('code')->all(), is_string(...))),
            array_map(fn (int $id): string => $this->organisation->unit($id)->name, array_reverse(array_slice($this->organisation->way($unit->id), 1))),
            $unit->retired_from === null ? null : Month::ofDate($unit->retired_from)->key(),
            $this->measured($unit, $user),
            $this->people($unit),
            $this->stood($unit),
            $this->shapes($unit, $user),
            $this->rights->administers($user),
        );
    }

    /** @return list<MeasuredThere> those that the person may see; whoever administers sees what there is, not what it says */
    private function measured(Unit $unit, User $user): array
    {
        $isWhole = $this->rights->administers($user);
        /** @var list<object{code: string, name: string, frequency: string, is_gathered: bool, owner_id: int|null, owner: string|null, ends: string|null}> $rows */
        $rows = $this->database->select(
            'SELECT kpis.code, kpis.name, kpis.frequency, is_gathered, owner_id, users.name AS owner, measured_to AS ends
             FROM kpi_unit JOIN kpis ON kpis.id = kpi_id LEFT JOIN users ON users.id = owner_id WHERE unit_id = ? ORDER BY kpi_unit.position, kpi_unit.id',
            [$unit->id],
        );

        return array_values(array_map(
            fn (object $row): MeasuredThere => new MeasuredThere($row->code, $row->name, $row->frequency, $row->is_gathered, $row->owner, $row->ends === null ? null : Month::ofDate($row->ends)->key()),
            array_filter($rows, fn (object $row): bool => $isWhole || $this->rights->maySee($user, $unit->id, $row->owner_id)),
        ));
    }

    /** @return list<AnsweringPerson> heads and analysts of the unit, and of what it is part of: the nearest first */
    private function people(Unit $unit): array
    {
        $way = $this->organisation->way($unit->id);
        /** @var list<object{name: string, role: string, unit_id: int}> $rows */
        $rows = $this->database->select(
            'SELECT users.name, role, unit_id FROM grants JOIN users ON users.id = user_id
             WHERE unit_id = ANY(?::bigint[]) AND role = ANY(?::text[]) AND blocked_at IS NULL AND NOT is_program ORDER BY array_position(?::bigint[], unit_id), role DESC, users.name',
            [PgArray::of($way), PgArray::of(array_column(self::ANSWER, 'value')), PgArray::of($way)],
        );

        return array_map(fn (object $row): AnsweringPerson => new AnsweringPerson($row->name, Role::from($row->role)->words(), $row->unit_id === $unit->id ? null : $this->organisation->unit($row->unit_id)->name), $rows);
    }

    /** @return list<MapShape> of the unit and those beside it; where it has none, of those below it */
    private function shapes(Unit $unit, User $user): array
    {
        $seen = $this->rights->administers($user) ? null : PgArray::of($this->rights->units($user));
        /** @var list<object{code: string, name: string, shape: string}> $rows */
        $rows = $this->database->select(
            'SELECT units.code, units.name, shape FROM unit_shapes JOIN units ON units.id = unit_id
             WHERE (units.id = ? OR (units.parent_id = CASE WHEN EXISTS (SELECT FROM unit_shapes WHERE unit_id = ?) THEN ?::bigint ELSE ? END AND units.id = ANY(coalesce(?::bigint[], ARRAY[units.id]))))
             ORDER BY units.position, units.id LIMIT ?',
            [$unit->id, $unit->id, $unit->parent_id, $unit->id, $seen, self::MOST_SHAPES],
        );

        return array_map(fn (object $row): MapShape => new MapShape($row->code, $row->name, $row->shape), $rows);
    }

    /** @return list<StoodBefore> the latest first */
    private function stood(Unit $unit): array
    {
        /** @var list<object{until: string, parent_id: int|null, weight: string, roll_up: string}> $rows */
        $rows = $this->database->select('SELECT until, parent_id, weight, roll_up FROM unit_history WHERE unit_id = ? ORDER BY until DESC', [$unit->id]);

        return array_map(fn (object $row): StoodBefore => new StoodBefore(Month::ofDate($row->until)->key(), $row->parent_id === null ? null : $this->organisation->unit($row->parent_id)->name, WantedUnit::plain($row->weight), $row->roll_up), $rows);
    }
}
