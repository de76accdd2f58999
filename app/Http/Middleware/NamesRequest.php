<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Context;
use Symfony\Component\HttpFoundation\Response;

/**
 * Every request has a number. Each line that it leaves in the log carries it, and so does the answer: whoever saw an error
 * can say which it was.
 */
final class NamesRequest
{
    public const HEADER = 'X-Request-Id';

    public function handle(Request $request, Closure $next): Response
    {
        $given = $request->headers->get(self::HEADER, '');
        // One that a proxy has given goes on; anything else could write into the log.
        $number = is_string($given) && preg_match('/\A[A-Za-z0-9-]{8,64}\z/', $given) === 1 ? $given : bin2hex(random_bytes(8));
        Context::add('request', $number);
        /** @var Response $response */
        $response = $next($request);
        $response->headers->set(self::HEADER, $number);

        return $response;
    }
}
