<?php

declare(strict_types=1);

namespace App\People;

use App\People\Views\BeginningView;
use App\Support\Currencies;
use App\Support\Installation;
use DateTimeZone;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use OpenApi\Attributes as OA;

final readonly class BeginningController
{
    #[OA\Get(path: '/api/beginning', operationId: 'beginning', parameters: [
        new OA\Parameter(name: 'link', in: 'query', required: true, description: 'the secret of the link', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'Whether the link works, and what can be chosen', content: new OA\JsonContent(ref: '#/components/schemas/Beginning')),
    ])]
    public function show(Request $request, Installation $installation): JsonResponse
    {
        $link = $request->query('link');
        $works = is_string($link) && $installation->opensWith($link);

        return new JsonResponse(new BeginningView($works, $works ? DateTimeZone::listIdentifiers() : [], $works ? Currencies::all() : []));
    }

    #[OA\Post(path: '/api/beginning', operationId: 'begin', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/BeginningInput')), responses: [
        new OA\Response(response: 204, description: 'The organisation was begun, and its first account is signed in'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(BeginningRequest $request, BeginOrganisation $begin): JsonResponse
    {
        $user = $begin($request->beginning());
        Auth::login($user);
        $request->session()->regenerate();
        KnownDevice::remember($request, $user->email);

        return new JsonResponse(null, 204);
    }
}
