<?php

declare(strict_types=1);

namespace App\Figures;

/**
 * What a note says, in its three parts; all blank is no note.
 */
final readonly class NoteText
{
    /**
     * @param  string  $text  the reason
     * @param  string|null  $outlook  when it will be back, and where it is heading; null leaves it as it stands
     * @param  string|null  $doing  what is being done; null leaves it as it stands
     */
    public function __construct(public string $text = '', public ?string $outlook = null, public ?string $doing = null) {}

    public function isBlank(): bool
    {
        return $this->text === '' && ($this->outlook ?? '') === '' && ($this->doing ?? '') === '';
    }

    /** Whether it says the same, in the parts that it speaks of. */
    public function equals(self $that): bool
    {
        return $this->text === $that->text
            && ($this->outlook ?? $that->outlook ?? '') === ($that->outlook ?? $this->outlook ?? '')
            && ($this->doing ?? $that->doing ?? '') === ($that->doing ?? $this->doing ?? '');
    }

    /** With what stands in the parts that it leaves alone. */
    public function over(self $standing): self
    {
        return new self($this->text, $this->outlook ?? $standing->outlook ?? '', $this->doing ?? $standing->doing ?? '');
    }
}
