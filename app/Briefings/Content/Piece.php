<?php

declare(strict_types=1);

namespace App\Briefings\Content;

use JsonSerializable;
use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

/**
 * A piece of a briefing, as somebody has put it together.
 */
#[OA\Schema(description: 'A piece of a briefing, as somebody has put it together.')]
final readonly class Piece implements JsonSerializable
{
    /**
     * @param  string  $id  its own on the page
     * @param  int  $width  in twelfths
     * @param  string  $title  blank for what it is called by itself
     * @param  string  $line  of explanation
     * @param  list<string>  $kpis  codes
     * @param  string  $unit  code; blank for the page's
     * @param  string  $span  blank for the page's
     * @param  string  $of  a split or a field, where the kind has any
     * @param  array<string, string>  $choices  those that are not the first
     * @param  list<string>|null  $parts  null for those of the beginning
     */
    public function __construct(
        #[OA\Property(description: 'its own on the page')] public string $id,
        #[OA\Property(enum: PieceKind::class)] public PieceKind $kind,
        #[OA\Property(description: 'in twelfths')] public int $width,
        #[OA\Property(description: 'blank for what it is called by itself', maxLength: 120)] public string $title = '',
        #[OA\Property(description: 'of explanation', maxLength: 300)] public string $line = '',
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'codes')] public array $kpis = [],
        #[OA\Property(description: "code of the unit on which it is pinned; blank for the page's")] public string $unit = '',
        #[OA\Property(enum: ['', Span::Month, Span::Quarter, Span::YearToDate, Span::Rolling12])] public string $span = '',
        #[OA\Property(description: 'a split, or a field of cases', maxLength: 80)] public string $of = '',
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public array $choices = [],
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'what is shown; null for what is to begin with', nullable: true)] public ?array $parts = null,
        #[OA\Property(maxLength: 6000)] public string $text = '',
        #[OA\Property] public ?int $picture = null,
    ) {}

    public function copied(): self
    {
        return new self($this->id, $this->kind, $this->width, $this->title, $this->line, $this->kpis, '', $this->span, $this->of, $this->choices, $this->parts, $this->kind === PieceKind::Commentary ? '' : $this->text);
    }

    public function choice(string $name): string
    {
        return $this->choices[$name] ?? $this->kind->choices()[$name][0];
    }

    public function shows(string $part): bool
    {
        return in_array($part, $this->parts ?? $this->kind->parts()[0], true);
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        // The database keeps the keys of an object in an order of its own.
        $choices = $this->choices;
        ksort($choices);

        return [
            'id' => $this->id, 'kind' => $this->kind->value, 'width' => $this->width, 'title' => $this->title, 'line' => $this->line,
            'kpis' => $this->kpis, 'unit' => $this->unit, 'span' => $this->span, 'of' => $this->of,
            'choices' => (object) $choices, 'parts' => $this->parts, 'text' => $this->text, 'picture' => $this->picture,
        ];
    }

    /** @param  array{id: string, kind: string, width: int, title: string, line: string, kpis: list<string>, unit: string, span: string, of: string, choices: array<string, string>, parts: list<string>|null, text: string, picture: int|null}  $data  of {@see jsonSerialize()} */
    public static function of(array $data): self
    {
        return new self(
            $data['id'], PieceKind::from($data['kind']), $data['width'], $data['title'], $data['line'], $data['kpis'], $data['unit'], $data['span'],
            $data['of'], $data['choices'], $data['parts'], $data['text'], $data['picture'],
        );
    }
}
