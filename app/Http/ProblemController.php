<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Contracts\View\View;

/** What each kind of problem means: where the type of a problem leads to. */
final class ProblemController
{
    public function __invoke(PageTheme $theme, ?string $type = null): View
    {
        return view('problems', ['theme' => $theme->chosen(), 'types' => ProblemType::cases(), 'asked' => $type]);
    }
}
