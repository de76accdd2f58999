<?php

declare(strict_types=1);

namespace App\Register\Views;

use App\Support\NumberSetting;
use Kybernet\Core\Status\BandLimits;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Limits;
use Kybernet\Core\Status\Pace;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Rule', description: 'What green, amber and red mean, from a month on. Figures are as this user would type them; blank where the rule has none.')]
final readonly class RuleView
{
    private function __construct(
        #[OA\Property(description: 'the first month that it judges, 2026-04')] public string $from,
        #[OA\Property(enum: Reference::class)] public string $reference,
        #[OA\Property(enum: Deviation::class)] public string $measure,
        #[OA\Property] public string $green,
        #[OA\Property] public string $amber,
        #[OA\Property(description: 'of recent periods: how many')] public ?int $periods,
        #[OA\Property(enum: Pace::class, description: 'of the year target: how much of it is asked for by now')] public string $pace,
        #[OA\Property(description: 'a level beyond green that is marked when it is reached')] public string $stretch,
        #[OA\Property(description: "of a band's level")] public string $low,
        #[OA\Property(description: "of a band's level")] public string $high,
        #[OA\Property(description: 'how far below the band amber reaches')] public string $marginLow,
        #[OA\Property(description: 'how far above the band amber reaches')] public string $marginHigh,
    ) {}

    public static function of(RuleSet $rule, NumberSetting $setting): self
    {
        $band = $rule->limits instanceof BandLimits ? $rule->limits : null;
        $limits = $rule->limits instanceof Limits ? $rule->limits : null;

        return new self(
            $rule->from->key(),
            $rule->reference->value,
            $rule->measure->value,
            $setting->write($limits?->green),
            $setting->write($limits?->amber),
            $rule->periods,
            $rule->pace->value,
            $setting->write($rule->stretch),
            $setting->write($band?->low),
            $setting->write($band?->high),
            $setting->write($band?->marginLow),
            $setting->write($band?->marginHigh),
        );
    }
}
