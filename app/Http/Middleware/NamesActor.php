<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use App\Support\Installation;
use App\Support\Trail;
use Closure;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Symfony\Component\HttpFoundation\Response;

/**
 * Whatever a request changes is written to the trail under the name of who sent it. Who was blocked is signed out, and
 * so is who signed in longer ago than the organisation lets anybody stay.
 */
final readonly class NamesActor
{
    private const BEGAN = 'began';

    public function __construct(private Trail $trail, private Installation $installation) {}

    public function handle(Request $request, Closure $next): Response
    {
        $user = $request->user();
        if ($user instanceof User && ($user->blocked_at !== null || $this->isOver($request))) {
            Auth::logout();
            $request->session()->invalidate();
            throw new AuthenticationException;
        }
        if (! $request->isMethodSafe()) {
            // Nobody is named too: the connection may have served somebody else before.
            $this->trail->actsAs($user instanceof User ? $user->id : null);
        }

        /** @var Response $response */
        $response = $next($request);

        return $response;
    }

    private function isOver(Request $request): bool
    {
        if (! $request->hasSession()) {
            return false;
        }
        $began = $request->session()->get(self::BEGAN);
        if (! is_int($began)) {
            $request->session()->put(self::BEGAN, $began = now()->getTimestamp());
        }

        return $began < now()->subDays($this->installation->sessionDays())->getTimestamp();
    }
}
