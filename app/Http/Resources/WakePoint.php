<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Figures\KpiFacts;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One month of the small history line.')]
final readonly class WakePoint
{
    private const MONTHS = 13;

    private function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property] public ?string $actual,
        #[OA\Property] public ?string $target,
    ) {}

    /** @return list<self> the 13 months that end at the chosen one */
    public static function ofMonths(KpiFacts $kpi, Period $chosen): array
    {
        $measurement = $kpi->measurement;

        return array_map(fn (Period $month): self => new self(
            $month->key(),
            self::written($kpi->shows($measurement->actuals->figure($month))),
            self::written($measurement->targets->line->figure($month)),
        ), $chosen->plus(1 - self::MONTHS)->to($chosen));
    }

    private static function written(?Exact $figure): ?string
    {
        return $figure === null ? null : (string) $figure;
    }
}
