<?php

declare(strict_types=1);

namespace App\Exchange\Views;

use App\Tables\SheetOutcome;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What taking a sheet of a workbook did, or would do.')]
final readonly class TakenSheet
{
    /** Beyond these, a list helps nobody. */
    private const SHOWN = 100;

    /**
     * @param  list<string>  $problems
     * @param  list<string>  $links
     */
    private function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public int $new,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $same,
        #[OA\Property] public int $refused,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'the first hundred, each with its line')] public array $problems,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'links to hand over, each with its address; shown this once')] public array $links,
    ) {}

    public function withoutLinks(): self
    {
        return new self($this->name, $this->new, $this->changed, $this->same, $this->refused, $this->problems, []);
    }

    public static function of(string $name, SheetOutcome $outcome): self
    {
        ksort($outcome->problems);

        return new self(
            $name,
            $outcome->new,
            $outcome->changed,
            $outcome->same,
            count($outcome->problems),
            array_map(fn (int $line, string $problem): string => "Line {$line}: {$problem}", array_slice(array_keys($outcome->problems), 0, self::SHOWN), array_slice($outcome->problems, 0, self::SHOWN)),
            array_map(fn (string $email, string $link): string => "{$email} {$link}", array_keys($outcome->links), $outcome->links),
        );
    }
}
