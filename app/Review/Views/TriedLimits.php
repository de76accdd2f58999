<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Support\NumberSetting;
use Kybernet\Core\Status\BandLimits;
use Kybernet\Core\Status\Limits;
use Kybernet\Core\Status\RuleSet;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Limits as this user would type them; blank where the rule has none.')]
final readonly class TriedLimits
{
    private function __construct(
        #[OA\Property] public string $green,
        #[OA\Property] public string $amber,
        #[OA\Property(description: "of a band's level")] public string $low,
        #[OA\Property(description: "of a band's level")] public string $high,
        #[OA\Property(description: 'how far below the band amber reaches')] public string $marginLow,
        #[OA\Property(description: 'how far above the band amber reaches')] public string $marginHigh,
        #[OA\Property(description: 'of recent periods: how many')] public ?int $periods,
    ) {}

    public static function of(RuleSet $rule, NumberSetting $setting): self
    {
        $limits = $rule->limits instanceof Limits ? $rule->limits : null;
        $band = $rule->limits instanceof BandLimits ? $rule->limits : null;

        return new self(
            $setting->write($limits?->green),
            $setting->write($limits?->amber),
            $setting->write($band?->low),
            $setting->write($band?->high),
            $setting->write($band?->marginLow),
            $setting->write($band?->marginHigh),
            $rule->periods,
        );
    }
}
