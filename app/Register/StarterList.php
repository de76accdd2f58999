<?php

declare(strict_types=1);

namespace App\Register;

use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\Operand;

/**
 * The common measures that ship with the product, in plain words, by function. Where a definition is published, its
 * source is named; limits that are in general use are marked as common practice.
 */
final class StarterList
{
    /** @var array<string, StarterKpi>|null */
    private ?array $known = null;

    /** @return array<string, StarterKpi> by code, in the order of the list */
    public function all(): array
    {
        return $this->known ??= self::read();
    }

    /**
     * Those that are wanted with everything that they are worked out from, which stands before them.
     *
     * @param  list<string>  $codes
     * @return array<string, StarterKpi> by code
     */
    public function withNeeds(array $codes): array
    {
        $found = [];
        foreach ($codes as $code) {
            $starter = $this->all()[$code] ?? null;
            if ($starter !== null) {
                $found += $this->withNeeds($starter->needs) + [$code => $starter];
            }
        }

        return $found;
    }

    /** @return array<string, StarterKpi> */
    private static function read(): array
    {
        /** @var list<array{function: string, code: string, name: string, purpose: string, measure: string, decimals: int, polarity: string, accumulation: string, formula?: string, rule: array<string, string>|null, practice: bool, publishedBy: string, scale?: string}> $rows */
        $rows = json_decode((string) file_get_contents(__DIR__.'/starter-kpis.json'), true, 512, JSON_THROW_ON_ERROR);
        $starters = [];
        foreach ($rows as $row) {
            $formula = $row['formula'] ?? '';
            $starters[$row['code']] = new StarterKpi(
                $row['code'], $row['name'], $row['function'], $row['purpose'], $row['measure'], $row['decimals'], $row['polarity'], $row['accumulation'], $formula,
                $row['rule'], $row['practice'], $row['publishedBy'], isset($row['scale']), $formula === '' ? [] : array_values(array_unique(array_map(fn (Operand $operand): string => $operand->code, array_values(Formula::parse($formula)->operands)))),
            );
        }

        return $starters;
    }
}
