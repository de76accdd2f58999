<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Figures\MeasurementFacts;
use App\Views\Difference;
use App\Views\Shown;
use App\Views\StatusSchema;
use App\Views\Verdict;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How a KPI stands on a span, with the sentence that defends it.')]
final readonly class Headline
{
    private function __construct(
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(ref: StatusSchema::REF, description: 'what the rules say, whoever called it otherwise')] public string $computed,
        #[OA\Property(description: 'the reason of a person who called it otherwise')] public ?string $call,
        #[OA\Property] public ?string $calledBy,
        #[OA\Property(description: 'a green that has reached its stretch')] public bool $stretched,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Difference $variance,
        #[OA\Property] public ?Difference $change,
        #[OA\Property] public string $reason,
        #[OA\Property(description: 'how many periods in a row it has had this colour, in words; null for one')] public ?string $streak,
        #[OA\Property(description: 'the day up to which its figure counts, where a period of it was not over')] public ?string $asOf,
    ) {}

    public static function of(MeasurementFacts $kpi, Span $span, Assessment $assessed, ?Streak $streak): self
    {
        return new self(
            $span->value,
            $assessed->status->value,
            $assessed->computed->value,
            $assessed->call?->reason,
            $assessed->call?->by,
            $assessed->isStretched(),
            Shown::of($assessed->figures->actual, $kpi),
            Shown::of($assessed->figures->goal?->target, $kpi),
            Difference::of($assessed->variance, $kpi),
            Difference::of($assessed->change, $kpi),
            $assessed->reason(),
            Verdict::of($assessed, $streak)->streak,
            $kpi->provisional($assessed->figures->reported),
        );
    }
}
