<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Http\Request;

/** Light or dark, as the reader has chosen it: a page is drawn right from the start. */
final readonly class PageTheme
{
    public function __construct(private Request $request) {}

    /** Null where the device decides. */
    public function chosen(): ?string
    {
        $theme = $this->request->cookie('theme');

        return in_array($theme, ['light', 'dark'], true) ? $theme : null;
    }
}
