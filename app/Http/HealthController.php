<?php

declare(strict_types=1);

namespace App\Http;

use App\Support\Finding;
use App\Support\Readiness;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;

/** For those who watch over it: alive, and ready. */
final class HealthController
{
    public function up(): Response
    {
        return new Response("up\n", 200, ['Content-Type' => 'text/plain; charset=utf-8', 'Cache-Control' => 'no-store']);
    }

    public function ready(Readiness $readiness): JsonResponse
    {
        $findings = $readiness->findings();
        $isReady = array_filter($findings, fn (Finding $finding): bool => ! $finding->isWell) === [];

        return new JsonResponse(
            ['ready' => $isReady, 'checks' => array_combine(array_map(fn (Finding $finding): string => $finding->name, $findings), array_map(fn (Finding $finding): bool => $finding->isWell, $findings))],
            $isReady ? 200 : 503,
            ['Cache-Control' => 'no-store'],
        );
    }
}
