<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;
use App\Models\User;
use App\People\Views\DutiesView;
use App\People\Views\DutyView;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Somebody leaves: what was theirs to answer for becomes somebody else's, and they are let in no longer, in one step.
 */
final readonly class HandOver
{
    /** Roles with duties; who only read leaves nothing behind. */
    private const DUTIES = [Role::Analyst, Role::Head, Role::Owner];

    public function __construct(private Connection $database, private SavePerson $save, private Trail $trail) {}

    public function duties(User $person): DutiesView
    {
        return new DutiesView(
            $this->lines('SELECT kpis.code, kpis.name AS what, units.name AS place FROM kpi_unit JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id WHERE owner_id = ? ORDER BY units.position, units.id, kpis.code', [$person->id]),
            $this->lines("SELECT '' AS code, role AS what, units.name AS place FROM grants JOIN units ON units.id = unit_id WHERE user_id = ? AND role IN ('analyst', 'head', 'owner') ORDER BY grants.id", [$person->id]),
            $this->lines("SELECT kpis.code, what, units.name AS place FROM actions JOIN kpi_unit ON kpi_unit.id = kpi_unit_id JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = kpi_unit.unit_id WHERE lower(who) = lower(?) AND state = 'open' ORDER BY due, actions.id", [$person->name]),
        );
    }

    /** @throws ValidationException where it cannot be handed over to them */
    public function __invoke(User $person, int $to): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($person, $to): void {
            // Both stay as they are until it is done: neither is blocked, nor leaves, meanwhile.
            User::query()->whereKey([$person->id, $to])->orderBy('id')->lockForUpdate()->get();
            $heir = User::query()->whereNull('blocked_at')->where('is_program', false)->find($to);
            if ($heir === null || $heir->id === $person->id) {
                throw ValidationException::withMessages(['to' => 'Choose somebody who stays.']);
            }
            $this->database->table('kpi_unit')->where('owner_id', $person->id)->update(['owner_id' => $heir->id]);
            $this->database->table('actions')->whereRaw('lower(who) = lower(?)', [$person->name])->where('state', 'open')->update(['who' => $heir->name]);
            $this->database->table('grants')->insertUsing(
                ['user_id', 'role', 'unit_id'],
                $this->database->table('grants AS theirs')->selectRaw('?::bigint, role, unit_id', [$heir->id])->where('user_id', $person->id)->whereIn('role', array_column(self::DUTIES, 'value'))
                    ->whereRaw('NOT EXISTS (SELECT FROM grants had WHERE had.user_id = ? AND had.role = theirs.role AND had.unit_id = theirs.unit_id)', [$heir->id])->orderBy('theirs.id'),
            );
            $this->database->table('stand_ins')->where('user_id', $person->id)->orWhere('substitute_id', $person->id)->delete();
            $this->save->block($person, true);
        });
    }

    /**
     * @param  list<int|string>  $values
     * @return list<DutyView>
     */
    private function lines(string $query, array $values): array
    {
        /** @var list<object{code: string, what: string, place: string}> $rows */
        $rows = $this->database->select($query, $values);

        return array_map(fn (object $row): DutyView => new DutyView($row->code, $row->what, $row->place), $rows);
    }
}
