<?php

declare(strict_types=1);

namespace App\Sources;

use Brick\Math\BigDecimal;
use Kybernet\Core\Assessment;
use Kybernet\Core\Records\Comparison;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Operator;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Status\Polarity;

/**
 * What the cases of a figure are measured by, and the goal that they are held against: of a share what it is of, otherwise
 * the target.
 */
final readonly class CaseAim
{
    /**
     * @param  bool  $isAtMost  up to the goal is good, and not from it on
     * @param  int|null  $met  which condition of a share is the goal; null where the target is
     */
    private function __construct(public Source $of, public ?BigDecimal $goal, public bool $isAtMost, public ?int $met) {}

    /** Null where its records have no value. */
    public static function of(Behind $behind, Assessment $assessed): ?self
    {
        $counted = $behind->counted;
        if ($counted->take === Take::Share) {
            foreach ($counted->met as $at => $condition) {
                $comparison = $condition->comparisons[0];
                $isAtMost = self::isAtMost($comparison);
                if (count($condition->comparisons) === 1 && $isAtMost !== null && is_string($comparison->operands[0])) {
                    return new self($comparison->source, BigDecimal::of($comparison->operands[0]), $isAtMost, $at);
                }
            }
        }
        if ($counted->take->isOfNumbers() && $counted->of !== null) {
            $goal = $assessed->figures->goal?->target;
            $isMeasured = $counted->take !== Take::Sum && $goal !== null && $assessed->figures->goal->band === null;

            return new self($counted->of, $isMeasured ? $goal->rounded(8)->stripTrailingZeros() : null, $behind->kpi->measurement->definition->polarity !== Polarity::Higher, null);
        }
        foreach (array_keys($behind->set->set()->calculated) as $name) {
            $source = $behind->set->set()->source($name);

            return new self($source, null, true, null);
        }

        return null;
    }

    private static function isAtMost(Comparison $comparison): ?bool
    {
        return $comparison->source->type !== FieldType::Number ? null : match ($comparison->operator) {
            Operator::AtMost, Operator::LessThan => true,
            Operator::AtLeast, Operator::MoreThan => false,
            default => null,
        };
    }
}
