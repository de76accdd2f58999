<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Request;

/**
 * Changes need the token of their session. Who signs in has no session yet; a browser then says which page it comes
 * from, and another site's is refused.
 */
final class ForgeryProtection extends ValidateCsrfToken
{
    /** @param  Request  $request */
    protected function tokensMatch($request): bool
    {
        return parent::tokensMatch($request)
            || (! $request->cookies->has(config()->string('session.cookie')) && $request->is('api/session', 'api/forgotten') && $request->isMethod('POST') && self::isFromHere($request));
    }

    private static function isFromHere(Request $request): bool
    {
        $site = $request->headers->get('Sec-Fetch-Site');
        $origin = $request->headers->get('Origin');

        return ($site === null || in_array($site, ['same-origin', 'none'], true)) && ($origin === null || in_array($origin, [$request->getSchemeAndHttpHost(), rtrim(config()->string('app.url'), '/')], true));
    }
}
