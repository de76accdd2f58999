<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Measure\Display;
use Kybernet\Core\Measure\Exact;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A figure: exact, and as it is shown before the number setting of the reader shapes it.')]
final readonly class Shown
{
    public function __construct(
        #[OA\Property(description: 'at most 12 decimals, a plain point')]
        public string $exact,
        #[OA\Property(description: 'rounded for display, a plain point')]
        public string $digits,
        #[OA\Property(enum: ['', 'k', 'm', 'bn'])]
        public string $suffix,
    ) {}

    /** @param  non-negative-int  $more  decimals beyond those of the KPI, for what is worked out from many of its figures */
    public static function of(?Exact $figure, MeasurementFacts $kpi, int $more = 0): ?self
    {
        $figure = $kpi->shows($figure);
        if ($figure === null) {
            return null;
        }
        $display = Display::of($figure, $kpi->measurement->definition->decimals + $more, $kpi->scaled);

        return new self((string) $figure, $display->digits, $display->suffix);
    }
}
