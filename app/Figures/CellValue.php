<?php

declare(strict_types=1);

namespace App\Figures;

use Brick\Math\BigDecimal;
use Kybernet\Core\Status\Status;

/**
 * What a cell holds: a figure, the two ends of a band, a colour, or nothing.
 */
final readonly class CellValue
{
    public function __construct(
        public ?BigDecimal $figure = null,
        public ?BigDecimal $upper = null,
        public ?Status $colour = null,
    ) {}

    /** @param  string|null  $figure  as the database keeps it */
    public static function kept(?string $figure, ?string $upper = null, ?string $colour = null): self
    {
        $exact = fn (?string $text): ?BigDecimal => $text === null ? null : BigDecimal::of($text)->stripTrailingZeros();

        return new self($exact($figure), $exact($upper), $colour === null ? null : Status::from($colour));
    }

    /** The value that {@see text()} wrote. */
    public static function ofText(string $text): self
    {
        if (Status::tryFrom($text) !== null) {
            return new self(colour: Status::from($text));
        }
        [$figure, $upper] = [...explode(' ', $text), null];

        return self::kept($figure === '' ? null : $figure, $upper);
    }

    /** As it is kept in a preview: a plain figure, two of them for a band, a colour, or nothing. */
    public function text(): string
    {
        return $this->colour->value ?? trim($this->figure?->stripTrailingZeros().' '.$this->upper?->stripTrailingZeros());
    }

    public function isBlank(): bool
    {
        return $this->figure === null && $this->colour === null;
    }

    public function equals(self $that): bool
    {
        $same = fn (?BigDecimal $one, ?BigDecimal $other): bool => $one === null || $other === null ? $one === $other : $one->isEqualTo($other);

        return $same($this->figure, $that->figure) && $same($this->upper, $that->upper) && $this->colour === $that->colour;
    }
}
