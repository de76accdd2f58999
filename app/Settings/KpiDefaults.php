<?php

declare(strict_types=1);

namespace App\Settings;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a new KPI begins with. Figures are plain, with a point, where they are set.')]
final readonly class KpiDefaults
{
    public function __construct(
        #[OA\Property(description: 'on course up to so many % from target, to the bad side')] public string $green,
        #[OA\Property(description: 'drifting up to so many %')] public string $amber,
        #[OA\Property(description: 'day of the month after a period', nullable: true)] public ?int $dueDay,
        #[OA\Property(description: 'whether a figure off course needs its reason')] public bool $noteRequired,
        #[OA\Property(description: 'a difference below it is of no account; blank for none')] public string $materiality,
        #[OA\Property(description: 'what green means, in longer words; blank for none')] public string $textGreen,
        #[OA\Property] public string $textAmber,
        #[OA\Property] public string $textRed,
    ) {}

    /** @param  array<string, mixed>  $kept */
    public static function of(array $kept): self
    {
        $text = fn (string $member): string => is_string($kept[$member] ?? null) ? $kept[$member] : '';

        return new self(
            $text('green') === '' ? '0' : $text('green'),
            $text('amber') === '' ? '5' : $text('amber'),
            is_int($kept['dueDay'] ?? null) ? $kept['dueDay'] : null,
            ($kept['noteRequired'] ?? false) === true,
            $text('materiality'),
            $text('textGreen'),
            $text('textAmber'),
            $text('textRed'),
        );
    }
}
