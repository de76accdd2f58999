<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Contracts\View\View;
use Illuminate\Http\Request;

/**
 * Every address that is not the API's is the one page: its own router reads the rest.
 */
final class PageController
{
    public function __invoke(Request $request): View
    {
        $theme = $request->cookie('theme');

        return view('app', ['theme' => in_array($theme, ['light', 'dark'], true) ? $theme : null]);
    }
}
