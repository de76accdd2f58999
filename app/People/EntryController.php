<?php

declare(strict_types=1);

namespace App\People;

use App\Organisation\Organisation;
use App\People\Views\EntryView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

final readonly class EntryController
{
    #[OA\Get(path: '/api/entry', operationId: 'entry', parameters: [
        new OA\Parameter(name: 'link', in: 'query', required: true, description: 'the secret of the link', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'Whom the link lets in', content: new OA\JsonContent(ref: '#/components/schemas/Entry')),
    ])]
    public function show(Request $request, EntryLinks $links, Organisation $organisation): JsonResponse
    {
        $link = $request->query('link');
        $user = is_string($link) ? $links->owner($link) : null;
        $root = array_values($organisation->units())[0] ?? null;

        return new JsonResponse(new EntryView($user !== null, $user?->joined_at === null, $user->name ?? '', $user->email ?? '', $user === null ? '' : $root->name ?? ''));
    }

    #[OA\Post(path: '/api/entry', operationId: 'enter', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/EntryInput')), responses: [
        new OA\Response(response: 204, description: 'The password is chosen, and they are signed in'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(EntryRequest $request, EntryLinks $links, SavePerson $save): JsonResponse
    {
        $user = $links->owner($request->link());
        $problem = $user === null ? '' : PasswordRules::problem($request->password(), [$user->name, $user->email]);
        if ($problem !== '') {
            throw ValidationException::withMessages(['password' => $problem]);
        }
        $user = $save->enter($request->link(), $request->password());
        Auth::login($user);
        $request->session()->regenerate();
        KnownDevice::remember($request, $user->email);

        return new JsonResponse(null, 204);
    }
}
