<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * The units of an organisation, each rolled up from what is directly under it, the deepest first.
 *
 * @phpstan-type Unit array{parent: int|null, weight: float}
 */
final class UnitTree
{
    /** @var array<int, list<int>> */
    private array $children = [];

    /** @param  array<int, Unit>  $units by an identity of the caller's; a parent that is not among them counts as none */
    public function __construct(private readonly array $units)
    {
        foreach ($units as $id => $unit) {
            if ($unit['parent'] !== null) {
                $this->children[$unit['parent']][] = $id;
            }
        }
    }

    /**
     * The roll-up of the unit and of every unit below it, by identity.
     *
     * @param  array<int, list<array{Status, float}>>  $kpis  status and weight of the KPIs measured in each unit itself
     * @return array<int, RollUp>
     */
    public function rollUp(int $unit, array $kpis): array
    {
        $results = [];
        $own = $kpis[$unit] ?? [];
        $members = $own;
        $counts = Counts::of(array_column($own, 0));
        foreach ($this->children[$unit] ?? [] as $child) {
            $below = $this->rollUp($child, $kpis);
            $results += $below;
            $members[] = [$below[$child]->status, $this->units[$child]['weight']];
            $counts = $counts->plus($below[$child]->counts);
        }
        $results[$unit] = RollUp::weighted($members, $counts);

        return $results;
    }

    /**
     * The unit and every unit below it, parents before children.
     *
     * @return non-empty-list<int>
     */
    public function below(int $unit): array
    {
        $found = [$unit];
        foreach ($this->children[$unit] ?? [] as $child) {
            $found = [...$found, ...$this->below($child)];
        }

        return $found;
    }
}
