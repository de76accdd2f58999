<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;

/**
 * What green, amber and red mean for a KPI, valid from a month on.
 */
final readonly class RuleSet
{
    /**
     * @param  Period  $from  the first month that it judges
     * @param  BigDecimal  $green  the green limit: % of adverse deviation, or a level in the KPI's own measure
     * @param  BigDecimal  $amber  the amber limit, likewise
     */
    private function __construct(
        public Period $from,
        public Reference $reference,
        public Deviation $measure,
        public BigDecimal $green,
        public BigDecimal $amber,
    ) {}

    /** @throws InvalidArgumentException with the first of the problems that {@see problems()} finds */
    public static function define(
        Polarity $polarity,
        Period $from,
        Reference $reference,
        Deviation $measure,
        BigDecimal $green,
        BigDecimal $amber,
    ): self {
        foreach (self::problems($polarity, $reference, $measure, $green, $amber) as $problem) {
            throw new InvalidArgumentException($problem);
        }

        return new self($from, $reference, $measure, $green, $amber);
    }

    /**
     * Why such a rule set is refused, by the member at fault; none when it is sound.
     *
     * @return array<'polarity'|'measure'|'amber', string>
     */
    public static function problems(
        Polarity $polarity,
        Reference $reference,
        Deviation $measure,
        BigDecimal $green,
        BigDecimal $amber,
    ): array {
        if ($polarity === Polarity::None) {
            return ['polarity' => 'A KPI that is only tracked has no limits.'];
        }
        if (! $reference->goesWith($measure)) {
            return ['measure' => "'{$measure->value}' does not go with the reference '{$reference->value}'."];
        }

        $amberIsTighter = match (true) {
            $measure === Deviation::Percent, $polarity === Polarity::Lower => $amber->isLessThan($green),
            default => $amber->isGreaterThan($green),
        };
        if (! $amberIsTighter) {
            return [];
        }

        return ['amber' => match (true) {
            $measure === Deviation::Percent => 'Drifting must reach at least as far as on course: '.self::text($green).' % or more.',
            $polarity === Polarity::Lower => 'The level for drifting must be '.self::text($green).' or higher: lower is better here.',
            default => 'The level for drifting must be '.self::text($green).' or lower: higher is better here.',
        }];
    }

    private static function text(BigDecimal $limit): string
    {
        return (string) $limit->stripTrailingZeros();
    }
}
