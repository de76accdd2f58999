<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\SecondFactorMissing;
use App\Models\User;
use App\Support\Installation;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Where everybody has to have a second factor, who has none yet sees to that first: only what is their own is answered.
 */
final readonly class AsksSecondFactor
{
    public function __construct(private Installation $installation) {}

    public function handle(Request $request, Closure $next): Response
    {
        $user = $request->user();
        if ($user instanceof User && $user->second_factor_since === null && ! $request->is('api/session', 'api/session/*', 'api/account', 'api/account/*') && $this->installation->needsSecondFactor()) {
            throw new SecondFactorMissing;
        }
        /** @var Response $response */
        $response = $next($request);

        return $response;
    }
}
