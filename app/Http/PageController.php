<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Contracts\View\View;

/**
 * Every address that is not the API's is the one page: its own router reads the rest.
 */
final class PageController
{
    public function __invoke(PageTheme $theme): View
    {
        return view('app', ['theme' => $theme->chosen()]);
    }
}
