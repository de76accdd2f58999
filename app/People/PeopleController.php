<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
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
    public function store(PersonRequest $request, SavePerson $save, SendLink $send): JsonResponse
    {
        $wanted = $request->wanted();

        return new JsonResponse($send($wanted->email, $save->invite($wanted)), 201);
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
    public function link(User $person, EntryLinks $links, SendLink $send): JsonResponse
    {
        return new JsonResponse($send($person->email, $links->make($person)), 201);
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

    #[OA\Delete(path: '/api/people/{person}/second-factor', operationId: 'takeSecondFactorOffSomebody', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 204, description: 'They sign in without a code, and what they had open has ended'),
    ])]
    public function takeFactorOff(User $person, SecondFactor $factor, OpenSessions $sessions): JsonResponse
    {
        $factor->takeOff($person);
        $sessions->endAll($person, '');

        return new JsonResponse(null, 204);
    }

    #[OA\Get(path: '/api/people/{person}/duties', operationId: 'duties', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 200, description: 'What would move when they leave', content: new OA\JsonContent(ref: '#/components/schemas/Duties')),
    ])]
    public function duties(User $person, HandOver $handOver): JsonResponse
    {
        return new JsonResponse($handOver->duties($person));
    }

    #[OA\Post(path: '/api/people/{person}/leaving', operationId: 'leave', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['to'], properties: [new OA\Property(property: 'to', description: 'who takes over', type: 'integer')])), responses: [
        new OA\Response(response: 204, description: 'Their duties are handed over, and they may not come in any longer'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function leave(User $person, Request $request, HandOver $handOver): JsonResponse
    {
        $request->validate(['to' => ['required', 'integer', 'between:1,2147483647']], ['to.*' => 'Choose somebody who stays.']);
        $handOver($person, $request->integer('to'));

        return new JsonResponse(null, 204);
    }
}
