<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Status\RollUpMethod;

/**
 * Reads the units of a workbook and refuses what is no tree.
 */
final class UnitsReader
{
    /** @var array<string, string> by code in small letters */
    private array $codes = [];

    /** @var array<string, array{UnitEntry, Row}> */
    private array $units = [];

    public function read(Row $row): void
    {
        $code = $row->text('code');
        if ($code === null) {
            return;
        }
        $same = $this->codes[strtolower($code)] ?? null;
        if ($same !== null) {
            $row->refuse('code', 'duplicate', "The unit '{$same}' is defined already.");

            return;
        }
        $this->codes[strtolower($code)] = $code;
        $this->units[$code] = [new UnitEntry(
            $code,
            $row->text('name') ?? '',
            $row->text('kind'),
            $row->text('parent'),
            $row->number('weight') ?? BigDecimal::one(),
            $this->rollUp($row->row('rollUp')),
        ), $row];
    }

    public function knows(string $unit): bool
    {
        return isset($this->units[$unit]);
    }

    /** @return list<UnitEntry> once all are read: checks that every parent is there and none lies under itself */
    public function all(): array
    {
        foreach ($this->units as [$unit, $row]) {
            if ($unit->parent !== null && ! $this->knows($unit->parent)) {
                $row->refuse('parent', 'unknown-unit', "There is no unit '{$unit->parent}'.");
            }
            $path = [$unit->code];
            $above = $unit->parent;
            for (; $above !== null && ! in_array($above, $path, true); $above = ($this->units[$above][0] ?? null)?->parent) {
                $path[] = $above;
            }
            if ($above === $unit->code) {
                $row->refuse('parent', 'cycle', 'A unit cannot lie under itself: '.implode(' > ', [...$path, $above]).'.');
            }
        }

        return array_column(array_values($this->units), 0);
    }

    private function rollUp(?Row $row): RollUpMethod
    {
        if ($row === null) {
            return RollUpMethod::weighted();
        }
        $method = $row->text('method');
        $used = match ($method) {
            'weighted' => ['green', 'amber'],
            'share' => ['red', 'green'],
            default => [],
        };
        foreach (array_diff($method === null ? [] : ['green', 'amber', 'red'], $used) as $member) {
            if ($row->has($member)) {
                $row->refuse($member, 'not-allowed', "The method '{$method}' has no cut '{$member}'.");
            }
        }
        foreach ($used as $member) {
            $cut = $row->figure($member);
            if ($cut !== null && ($cut->isNegative() || $cut->isGreaterThan($method === 'share' ? 100 : 2))) {
                $row->refuse($member, 'out-of-range', $method === 'share' ? 'A share is from 0 to 100 percent.' : 'A score is from 0 to 2.');
            }
        }
        $cut = fn (string $member, string $default): string => (string) ($row->figure($member) ?? $default);
        try {
            return match ($method) {
                'worst' => RollUpMethod::worst(),
                'share' => RollUpMethod::share($cut('red', '25'), $cut('green', '75')),
                default => RollUpMethod::weighted($cut('green', '1.5'), $cut('amber', '0.5')),
            };
        } catch (InvalidArgumentException $problem) {
            $row->refuse('amber', 'limits', $problem->getMessage());

            return RollUpMethod::weighted();
        }
    }
}
