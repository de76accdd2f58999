<?php

declare(strict_types=1);

namespace App\Briefings\Content;

/**
 * What stands on a briefing: bands from top to bottom, in each one to four pieces whose widths are whole twelfths.
 */
final readonly class Content
{
    public const TWELFTHS = 12;

    public const MOST_IN_A_BAND = 4;

    public const MOST_BANDS = 40;

    /** @param  list<non-empty-list<Piece>>  $bands */
    public function __construct(public array $bands) {}

    /** @return list<Piece> */
    public function pieces(): array
    {
        return array_merge(...$this->bands, ...[[]]);
    }

    /** For another unit: nothing is pinned any longer, and texts of one month are not those of another page. */
    public function copied(): self
    {
        return new self(array_map(fn (array $band): array => array_map(fn (Piece $piece): Piece => $piece->copied(), $band), $this->bands));
    }

    public function toJson(): string
    {
        return json_encode($this->bands, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }

    /** @param  string  $json  of {@see toJson()} */
    public static function ofJson(string $json): self
    {
        /** @var list<non-empty-list<array{id: string, kind: string, width: int, title: string, line: string, kpis: list<string>, unit: string, span: string, of: string, choices: array<string, string>, parts: list<string>|null, text: string, picture: int|null}>> $bands as they were written */
        $bands = json_decode($json, true, 32, JSON_THROW_ON_ERROR);

        return new self(array_map(fn (array $band): array => array_map(Piece::of(...), $band), $bands));
    }
}
