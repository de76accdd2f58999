<?php

declare(strict_types=1);

namespace App\Actions;

/**
 * A note as it was written; all blank removes it.
 */
final readonly class NoteDraft
{
    /**
     * @param  string  $text  the reason
     * @param  string  $outlook  when it will be back, and where it is heading
     * @param  string  $doing  what is being done
     * @param  int  $version  the version that was seen; 0 when there was none
     */
    public function __construct(public string $text, public string $outlook, public string $doing, public int $version) {}

    public function isBlank(): bool
    {
        return $this->text === '' && $this->outlook === '' && $this->doing === '';
    }
}
