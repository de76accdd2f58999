<?php

declare(strict_types=1);

namespace App\Figures;

use Closure;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Operator;
use Kybernet\Core\Records\RecordSet;

/**
 * How a KPI is counted, as a workbook has it, with its figures as a person writes them; and the other way round. What is no
 * figure in it stays as it is.
 *
 * @phpstan-type Members array<array-key, mixed>
 */
final readonly class CountedText
{
    /** @param  Closure(string, string): string  $figure  a figure as it is to be, by its place and as it is */
    public function __construct(private RecordSet $set, private Closure $figure) {}

    /**
     * @param  Members  $counted
     * @return Members
     */
    public function counted(array $counted): array
    {
        $percentile = $counted['percentile'] ?? null;
        if (is_string($percentile) || is_int($percentile) || is_float($percentile)) {
            $counted['percentile'] = ($this->figure)('counted.percentile', (string) $percentile);
        }
        foreach (['met', 'where'] as $member) {
            if (is_array($counted[$member] ?? null)) {
                $counted[$member] = array_map(fn (mixed $condition, int|string $at): mixed => is_array($condition) ? $this->condition($condition, "counted.{$member}.{$at}") : $condition, $counted[$member], array_keys($counted[$member]));
            }
        }

        return $counted;
    }

    /**
     * @param  list<Members>  $splits
     * @return list<Members>
     */
    public function splits(array $splits): array
    {
        foreach ($splits as $at => $split) {
            foreach (['green', 'amber'] as $limit) {
                if (is_string($split[$limit] ?? null)) {
                    $splits[$at][$limit] = ($this->figure)("splits.{$at}.{$limit}", $split[$limit]);
                }
            }
            foreach (is_array($split['bands'] ?? null) ? $split['bands'] : [] as $place => $band) {
                if (is_array($band) && is_string($band['upTo'] ?? null)) {
                    $band['upTo'] = ($this->figure)("splits.{$at}.bands.{$place}.upTo", $band['upTo']);
                    $splits[$at]['bands'] = array_replace(is_array($splits[$at]['bands'] ?? null) ? $splits[$at]['bands'] : [], [$place => $band]);
                }
            }
            $shares = [];
            foreach (is_array($split['shares'] ?? null) || is_object($split['shares'] ?? null) ? (array) $split['shares'] : [] as $part => $share) {
                $shares[$part] = is_string($share) ? ($this->figure)("splits.{$at}.shares.{$part}", $share) : $share;
            }
            if ($shares !== []) {
                $splits[$at]['shares'] = (object) $shares;
            } else {
                unset($splits[$at]['shares']);
            }
        }

        return $splits;
    }

    /**
     * @param  Members  $condition
     * @return Members
     */
    private function condition(array $condition, string $place): array
    {
        if (is_array($condition['any'] ?? null)) {
            $condition['any'] = array_map(fn (mixed $each, int|string $at): mixed => is_array($each) ? $this->condition($each, "{$place}.any.{$at}") : $each, $condition['any'], array_keys($condition['any']));

            return $condition;
        }
        try {
            $isNumber = is_string($condition['of'] ?? null) && $this->set->source(trim($condition['of']))->type === FieldType::Number;
        } catch (FormulaProblem) {
            $isNumber = false;
        }
        foreach ($isNumber ? Operator::cases() : [] as $operator) {
            $operand = $condition[$operator->value] ?? null;
            if (is_string($operand)) {
                $condition[$operator->value] = ($this->figure)("{$place}.{$operator->value}", $operand);
            } elseif (is_array($operand)) {
                $condition[$operator->value] = array_map(fn (mixed $each, int|string $at): mixed => is_string($each) ? ($this->figure)("{$place}.{$operator->value}.{$at}", $each) : $each, $operand, array_keys($operand));
            }
        }

        return $condition;
    }
}
