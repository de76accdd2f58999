<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Settings\KpiDefaults;
use App\Support\NumberSetting;
use Kybernet\Core\Status\RollUpRule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Settings', description: 'What the organisation sets for itself, and what there is to choose from.')]
final readonly class SettingsPage
{
    /**
     * @param  list<string>  $timeZones
     * @param  list<string>  $currencies
     */
    public function __construct(
        #[OA\Property(description: 'of the organisation')] public string $name,
        #[OA\Property(minimum: 1, maximum: 12)] public int $yearStartMonth,
        #[OA\Property(description: 'the latest month that is closed somewhere: until none is, the start of the year stays; null where none is')] public ?string $closed,
        #[OA\Property(description: 'readings whose year to date would be another')] public int $readings,
        #[OA\Property(description: 'IANA name')] public string $timeZone,
        #[OA\Property(description: 'ISO 4217')] public string $currency,
        #[OA\Property(enum: NumberSetting::LOCALES)] public string $locale,
        #[OA\Property] public bool $needsSecondFactor,
        #[OA\Property(description: 'people who have none yet')] public int $withoutSecondFactor,
        #[OA\Property(minimum: 1, maximum: 720)] public int $sessionHours,
        #[OA\Property(minimum: 1, maximum: 365, description: 'after which everybody signs in again')] public int $sessionDays,
        #[OA\Property(minimum: 1, maximum: 99, description: 'how long changes stay in the trail; null for good')] public ?int $trailYears,
        #[OA\Property(minimum: 0, maximum: 99, description: 'for which the law wants it kept')] public int $lawYears,
        #[OA\Property(description: 'the colour of the organisation on paper, #0b4a6f')] public ?string $accent,
        #[OA\Property(description: 'the address of the logo; null where there is none')] public ?string $logo,
        #[OA\Property(ref: '#/components/schemas/MailServer')] public MailView $mail,
        #[OA\Property(enum: ['analyst', 'head', 'nobody'])] public string $callers,
        #[OA\Property(ref: '#/components/schemas/KpiDefaults')] public KpiDefaults $kpi,
        #[OA\Property(enum: RollUpRule::class)] public string $rollUp,
        #[OA\Property(description: 'the cut for green: a score, or % of the weight')] public string $rollUpGreen,
        #[OA\Property(description: 'the cut for amber, or under share % of the weight for red')] public string $rollUpOther,
        #[OA\Property(description: 'counts the changes, so that two people cannot overwrite each other')] public int $version,
        #[OA\Property(description: 'whether this is the demonstration, which can be put away')] public bool $demonstration,
        #[OA\Property(description: 'whether everything may be taken out as a file: who administers and sees every figure')] public bool $exports,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $timeZones,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $currencies,
    ) {}
}
