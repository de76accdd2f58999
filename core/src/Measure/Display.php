<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * How a figure is shown: rounded half away from zero, and under the scale `auto` in thousands, millions or billions.
 *
 * The step is chosen after rounding, so that 999,950 with one decimal is 1.0m and not 1000.0k.
 */
final readonly class Display
{
    private const STEPS = ['k' => 1_000, 'm' => 1_000_000, 'bn' => 1_000_000_000];

    private function __construct(
        /** the digits, with a plain point and no separators: the reader's number setting shapes them */
        public string $digits,
        /** '', 'k', 'm' or 'bn' */
        public string $suffix,
    ) {}

    /** @param  int<0, max>  $decimals kept in the figure that is shown */
    public static function of(Exact $figure, int $decimals, bool $scaled): self
    {
        $shown = $figure->rounded($decimals);
        $suffix = '';
        foreach ($scaled ? self::STEPS : [] as $step => $divisor) {
            if ($shown->abs()->isLessThan(1000)) {
                break;
            }
            $shown = $figure->dividedBy(Exact::of($divisor))->rounded($decimals);
            $suffix = $step;
        }

        return new self((string) $shown, $suffix);
    }
}
