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
