<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Attention\Streak;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How a figure is judged, and the sentence that defends it.')]
final readonly class Verdict
{
    private function __construct(
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public string $reason,
        #[OA\Property(description: 'how many periods in a row it has had this colour, in words; null for one')]
        public ?string $streak,
        #[OA\Property(description: 'amber and red ask for a note')] public bool $wantsNote,
        #[OA\Property(description: 'asked where the figure is unusual, and blocking nothing; blank where it is not')] public string $question,
    ) {}

    public static function of(Assessment $assessed, ?Streak $streak, string $question = ''): self
    {
        return new self(
            $assessed->status->value,
            $assessed->reason(),
            $streak === null || $streak->length < 2 || $streak->status !== $assessed->status
                ? null
                : "{$streak->status->words()} for {$streak->length} {$streak->frequency->value}s in a row.",
            Owed::lacksReason($assessed->status, null),
            $question,
        );
    }
}
