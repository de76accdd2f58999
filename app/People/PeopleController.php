<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\People\Views\EntryLinkView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

final readonly class PeopleController
{
    #[OA\Get(path: '/api/people', operationId: 'people', responses: [
        new OA\Response(response: 200, description: 'Everybody with an account', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/PersonLine'))),
    ])]
    public function index(PeopleReader $reader): JsonResponse
    {
        return new JsonResponse($reader->read());
    }

    #[OA\Post(path: '/api/people', operationId: 'invite', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/PersonInput')), responses: [
        new OA\Response(response: 201, description: 'They are invited', content: new OA\JsonContent(ref: '#/components/schemas/EntryLink')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(PersonRequest $request, SavePerson $save): JsonResponse
    {
        return new JsonResponse(new EntryLinkView($save->invite($request->wanted())), 201);
    }

    #[OA\Put(path: '/api/people/{person}', operationId: 'changePerson', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/PersonInput')), responses: [
        new OA\Response(response: 200, description: 'Changed; the address stays', content: new OA\JsonContent(ref: '#/components/schemas/PersonLine')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(User $person, PersonRequest $request, SavePerson $save, PeopleReader $reader): JsonResponse
    {
        $save->change($person, $request->wanted());

        return new JsonResponse($reader->one($person));
    }

    #[OA\Post(path: '/api/people/{person}/link', operationId: 'makeEntryLink', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 201, description: 'A new link; the one before works no longer', content: new OA\JsonContent(ref: '#/components/schemas/EntryLink')),
    ])]
    public function link(User $person, EntryLinks $links): JsonResponse
    {
        return new JsonResponse(new EntryLinkView($links->make($person)), 201);
    }

    #[OA\Put(path: '/api/people/{person}/block', operationId: 'blockPerson', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['blocked'], properties: [new OA\Property(property: 'blocked', type: 'boolean')])), responses: [
        new OA\Response(response: 204, description: 'They may not come in any longer, and what they had open has ended; or they may again'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function block(User $person, Request $request, SavePerson $save): JsonResponse
    {
        $request->validate(['blocked' => ['required', 'boolean']]);
        $save->block($person, $request->boolean('blocked'));

        return new JsonResponse(null, 204);
    }
}
