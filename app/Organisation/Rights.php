<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Role;
use App\Models\User;
use Illuminate\Database\Connection;

/**
 * What a person sees and whose figures they may enter: an analyst everything; an executive reads everything; a
 * department head has their units; a data owner the KPIs that are theirs.
 */
final class Rights
{
    /** @var array<int, list<int>> units by user */
    private array $units = [];

    public function __construct(private readonly Organisation $organisation, private readonly Connection $database) {}

    public function maySee(User $user, int $unitId, ?int $ownerId): bool
    {
        return match ($user->role) {
            Role::Analyst, Role::Executive => true,
            Role::Head => in_array($unitId, $this->organisation->below($user->unit_id), true),
            Role::Owner => $ownerId === $user->id,
        };
    }

    public function mayLog(User $user, int $unitId, ?int $ownerId): bool
    {
        return $user->role !== Role::Executive && $this->maySee($user, $unitId, $ownerId);
    }

    /** The same as {@see maySee()}, for a query over many measurements. */
    public function sight(User $user): Sight
    {
        return match ($user->role) {
            Role::Analyst, Role::Executive => new Sight(null, null),
            Role::Head => new Sight($this->units($user), null),
            Role::Owner => new Sight(null, $user->id),
        };
    }

    /** Whether every figure of every unit is shown to the person. */
    public function seesAll(User $user): bool
    {
        return $user->role === Role::Analyst || $user->role === Role::Executive;
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

    /** @return list<int> the units whose pages the person may open, in tree order */
    public function units(User $user): array
    {
        return $this->units[$user->id] ??= match ($user->role) {
            Role::Analyst, Role::Executive => array_keys($this->organisation->units()),
            Role::Head => $this->organisation->below($user->unit_id),
            Role::Owner => $this->unitsOfOwner($user),
        };
    }

    /** @return list<int> the units that measure what is the owner's, with the units above them */
    private function unitsOfOwner(User $user): array
    {
        $wanted = [];
        foreach ([$user->unit_id, ...$this->database->table('kpi_unit')->where('owner_id', $user->id)->distinct()->pluck('unit_id')->all()] as $unit) {
            for ($above = $unit; $above !== null && ! isset($wanted[$above]); $above = $this->organisation->unit($above)->parent_id) {
                $wanted[$above] = true;
            }
        }

        return array_values(array_filter(array_keys($this->organisation->units()), fn (int $unit): bool => isset($wanted[$unit])));
    }
}
