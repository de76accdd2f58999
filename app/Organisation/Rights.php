<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Role;
use App\Models\User;
use App\Support\Installation;
use App\Support\Trail;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;

/**
 * What a person sees and what they may do, by their roles and those of the people for whom they stand in today. Each role
 * is for a part of the tree; only what an owner owns is theirs wherever it is measured.
 *
 * Whoever may do something only because they stand in is named in the trail together with whom they stand in for.
 */
final class Rights
{
    /** @var array<int, list<HeldRole>> by user, their own first */
    private array $held = [];

    /** @var array<int, list<int>> units by user */
    private array $units = [];

    /** @var array<int, array<int, true>> units in which every figure is seen, by user */
    private array $read = [];

    /** The trail has been told for whom they stand in. */
    private bool $isTold = false;

    public function __construct(private readonly Organisation $organisation, private readonly Connection $database, private readonly Trail $trail, private readonly Installation $installation) {}

    public function maySee(User $user, int $unitId, ?int $ownerId): bool
    {
        return isset($this->read($user)[$unitId]) || ($ownerId !== null && in_array($ownerId, $this->owners($user), true));
    }

    /** Enter a figure and write its notes. */
    public function mayLog(User $user, int $unitId, ?int $ownerId): bool
    {
        return $this->holds($user, fn (HeldRole $held): bool => match ($held->role) {
            Role::Analyst, Role::Head => isset($held->units[$unitId]),
            Role::Owner => $ownerId === $held->person,
            default => false,
        });
    }

    /** Enter figures at all, somewhere. */
    public function logs(User $user): bool
    {
        return $this->holds($user, fn (HeldRole $held): bool => $held->role->enters());
    }

    /** Call a status other than it was computed: who answers for the figure, not who enters it. */
    public function mayCall(User $user, int $unitId): bool
    {
        $callers = match ($this->installation->callers()) {
            'nobody' => [],
            'analyst' => [Role::Analyst],
            default => [Role::Analyst, Role::Head],
        };

        return $this->holds($user, fn (HeldRole $held): bool => in_array($held->role, $callers, true) && isset($held->units[$unitId]));
    }

    /** Do an analyst's work for all of the units: define what is measured there, plan its targets, close its months. */
    public function analyses(User $user, int ...$units): bool
    {
        return $this->holds($user, fn (HeldRole $held): bool => $held->role === Role::Analyst && array_diff_key(array_flip($units), $held->units) === []);
    }

    /** Do an analyst's work somewhere. */
    public function analysesSomewhere(User $user): bool
    {
        return $this->holds($user, fn (HeldRole $held): bool => $held->role === Role::Analyst);
    }

    /** Do an analyst's work for the whole organisation. */
    public function analysesAll(User $user): bool
    {
        return $this->analyses($user, ...array_slice(array_keys($this->organisation->units()), 0, 1));
    }

    /** Nobody administers for somebody else. */
    public function administers(User $user): bool
    {
        foreach ($this->held($user) as $held) {
            if ($held->role === Role::Administrator && $held->person === $user->id) {
                return true;
            }
        }

        return false;
    }

    /** The same as {@see maySee()}, for a query over many measurements. */
    public function sight(User $user): Sight
    {
        return new Sight($this->seesAll($user) ? null : array_keys($this->read($user)), $this->owners($user));
    }

    /** Whether every figure of every unit is shown to the person. */
    public function seesAll(User $user): bool
    {
        return isset($this->read($user)[array_key_first($this->organisation->units()) ?? 0]);
    }

    /**
     * Those that the person sees.
     *
     * @template Kpi of object{unitId: int, ownerId: int|null}
     *
     * @param  list<Kpi>  $kpis
     * @return list<Kpi>
     */
    public function seen(User $user, array $kpis): array
    {
        return $this->seesAll($user)
            ? $kpis
            : array_values(array_filter($kpis, fn (object $kpi): bool => $this->maySee($user, $kpi->unitId, $kpi->ownerId)));
    }

    /** The code of the unit whose pages open first: that of their first role; blank where they may open none. */
    public function home(User $user): string
    {
        $units = $this->units($user);
        $first = array_values(array_intersect(array_map(fn (HeldRole $held): int => $held->head, $this->held($user)), $units))[0] ?? $units[0] ?? null;

        return $first === null ? '' : $this->organisation->unit($first)->code;
    }

    /** @return list<int> the units whose pages the person may open, in tree order */
    public function units(User $user): array
    {
        return $this->units[$user->id] ??= $this->open($user);
    }

    /** @return list<int> */
    private function open(User $user): array
    {
        $all = array_keys($this->organisation->units());
        if ($this->seesAll($user)) {
            return $all;
        }
        $wanted = $this->read($user);
        // What is an owner's is found from the organisation down; so is a part of the tree beside another.
        $below = array_map(fn (HeldRole $held): int => $held->head, array_filter($this->held($user), fn (HeldRole $held): bool => $held->role === Role::Owner));
        $owners = $this->owners($user);
        if ($owners !== []) {
            $below = [...$below, ...array_filter($this->database->table('kpi_unit')->whereIn('owner_id', $owners)->distinct()->pluck('unit_id')->all(), is_int(...))];
        }
        $tops = array_filter(array_keys($wanted), fn (int $unit): bool => ! isset($wanted[$this->organisation->unit($unit)->parent_id ?? 0]));
        foreach ([...$below, ...(count($tops) > 1 || $below !== [] ? $tops : [])] as $unit) {
            foreach ($this->organisation->way($unit) as $above) {
                $wanted[$above] = true;
            }
        }

        return array_values(array_filter($all, fn (int $unit): bool => isset($wanted[$unit])));
    }

    /** @return array<int, true> the units in which every figure is shown to the person */
    private function read(User $user): array
    {
        if (! isset($this->read[$user->id])) {
            $this->read[$user->id] = [];
            foreach ($this->held($user) as $held) {
                $this->read[$user->id] += $held->role->reads() ? $held->units : [];
            }
        }

        return $this->read[$user->id];
    }

    /** @return list<int> whose measurements the person sees and enters because they are theirs */
    private function owners(User $user): array
    {
        return array_values(array_unique(array_map(fn (HeldRole $held): int => $held->person, array_filter($this->held($user), fn (HeldRole $held): bool => $held->role === Role::Owner))));
    }

    /** @param  \Closure(HeldRole): bool  $allows */
    private function holds(User $user, \Closure $allows): bool
    {
        foreach ($this->held($user) as $held) {
            if ($allows($held)) {
                if ($held->person !== $user->id && ! $this->isTold) {
                    $this->trail->standsInFor($held->person);
                    $this->isTold = true;
                }

                return true;
            }
        }

        return false;
    }

    /** @return list<HeldRole> */
    private function held(User $user): array
    {
        if (! isset($this->held[$user->id])) {
            /** @var list<object{role: string, user_id: int, unit_id: int}> $rows */
            $rows = $this->database->select(
                "SELECT * FROM (SELECT role, user_id, unit_id FROM grants WHERE user_id = ?
                 UNION ALL SELECT role, grants.user_id, unit_id FROM grants JOIN stand_ins USING (user_id) JOIN users ON users.id = grants.user_id
                 WHERE substitute_id = ? AND ? BETWEEN first_day AND last_day AND role <> 'administrator' AND users.blocked_at IS NULL) held
                 ORDER BY user_id <> ?",
                [$user->id, $user->id, CarbonImmutable::now($this->installation->timeZone())->toDateString(), $user->id],
            );
            $this->held[$user->id] = array_map(fn (object $row): HeldRole => new HeldRole(Role::from($row->role), $row->user_id, array_fill_keys($this->organisation->below($row->unit_id), true), $row->unit_id), $rows);
        }

        return $this->held[$user->id];
    }
}
