<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;

/**
 * The units of an organisation, each rolled up from what is directly under it, the deepest first.
 *
 * @template Id of array-key an identity of the caller's
 *
 * @phpstan-type Unit array{parent: Id|null, weight: BigDecimal, method?: RollUpMethod}
 */
final class UnitTree
{
    /** @var array<Id, list<Id>> */
    private array $children = [];

    /** @var array<string, RollUp> of units with nothing below them: many are made of the same */
    private array $alike = [];

    /** @param  array<Id, Unit>  $units  a parent that is not among them counts as none */
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
     * @param  Id  $unit
     * @param  array<Id, Tally>  $kpis  those measured in each unit itself
     * @return array<Id, RollUp>
     */
    public function rollUp(int|string $unit, array $kpis): array
    {
        $results = [];
        $members = isset($kpis[$unit]) ? clone $kpis[$unit] : new Tally;
        $counts = $members->counts();
        foreach ($this->children[$unit] ?? [] as $child) {
            $below = $this->rollUp($child, $kpis);
            $results += $below;
            $members->add($below[$child]->status, $this->units[$child]['weight']);
            $counts = $counts->plus($below[$child]->counts);
        }
        $method = $this->units[$unit]['method'] ?? RollUpMethod::weighted();
        $results[$unit] = isset($this->children[$unit])
            ? RollUp::of($method, $members, $counts)
            : $this->alike["{$method->key()}: {$members->key()}"] ??= RollUp::of($method, $members, $counts);

        return $results;
    }

    /**
     * The unit and every unit below it, parents before children.
     *
     * @param  Id  $unit
     * @return non-empty-list<Id>
     */
    public function below(int|string $unit): array
    {
        $found = [$unit];
        foreach ($this->children[$unit] ?? [] as $child) {
            $found = [...$found, ...$this->below($child)];
        }

        return $found;
    }
}
