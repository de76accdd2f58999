<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Support\Installation;
use Closure;
use Illuminate\Config\Repository;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Whoever brings no session and does not sign in gets none: visits of strangers and machines leave nothing behind. The
 * others' last as long as the organisation has set.
 */
final readonly class FewSessions
{
    public function __construct(private Repository $config, private Installation $installation, private SignsInByHeader $header) {}

    public function handle(Request $request, Closure $next): Response
    {
        $name = $this->config->string('session.cookie');
        if ($request->cookies->has($name) || ($request->isMethod('POST') && $request->is('api/session', 'api/beginning', 'api/entry')) || $this->header->said($request) !== null) {
            $this->config->set('session.lifetime', 60 * $this->installation->sessionHours());
            /** @var Response $response */
            $response = $next($request);

            return $response;
        }
        $driver = $this->config->string('session.driver');
        $this->config->set('session.driver', 'array');
        /** @var Response $response */
        $response = $next($request);
        $this->config->set('session.driver', $driver);
        $response->headers->removeCookie($name);
        $response->headers->removeCookie('XSRF-TOKEN');

        return $response;
    }
}
