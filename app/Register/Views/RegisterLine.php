<?php

declare(strict_types=1);

namespace App\Register\Views;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in the list of the register.')]
final readonly class RegisterLine
{
    /**
     * @param  list<string>  $units
     * @param  list<string>  $owners
     * @param  list<string>  $open
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'code of the department')] public string $department,
        #[OA\Property] public ?string $theme,
        #[OA\Property(description: 'code of the objective it serves')] public ?string $objective,
        #[OA\Property(enum: ['organisational', 'departmental', 'operational'])] public string $level,
        #[OA\Property(enum: Kind::class)] public string $kind,
        #[OA\Property(enum: Frequency::class)] public string $frequency,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(enum: Accumulation::class)] public string $accumulation,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'codes of the units where it is measured')] public array $units,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $owners,
        #[OA\Property(description: 'it is to be judged, but no limits say how')] public bool $lacksLimits,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'what must be asked before it can be relied on')] public array $open,
        #[OA\Property(description: 'its last month, 2026-04, once it is measured nowhere any longer; null while it is')] public ?string $retired,
    ) {}
}
