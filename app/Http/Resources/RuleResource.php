<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\RuleSet;
use App\Support\Month;
use App\Support\NumberSetting;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Rule', description: 'What green, amber and red mean, from a month on.')]
final readonly class RuleResource
{
    private function __construct(
        #[OA\Property(description: 'the first month that it judges, 2026-04')] public string $from,
        #[OA\Property(enum: ['target', 'none'])] public string $reference,
        #[OA\Property(enum: ['percent', 'level'])] public string $measure,
        #[OA\Property(description: 'as this user would type it')] public string $green,
        #[OA\Property(description: 'as this user would type it')] public string $amber,
    ) {}

    public static function of(RuleSet $rule, NumberSetting $setting): self
    {
        return new self(
            Month::ofDate($rule->valid_from)->key(),
            $rule->reference,
            $rule->measure,
            $setting->write($rule->green),
            $setting->write($rule->amber),
        );
    }
}
