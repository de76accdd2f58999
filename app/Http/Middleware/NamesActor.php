<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\User;
use App\Support\Trail;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Whatever a request changes is written to the trail under the name of who sent it.
 */
final readonly class NamesActor
{
    public function __construct(private Trail $trail) {}

    public function handle(Request $request, Closure $next): Response
    {
        $user = $request->isMethodSafe() ? null : $request->user();
        if ($user instanceof User) {
            $this->trail->actsAs($user->id);
        }

        /** @var Response $response */
        $response = $next($request);

        return $response;
    }
}
