<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

final readonly class StandInController
{
    public function __construct(private StandIns $standIns) {}

    #[OA\Get(path: '/api/stand-ins', operationId: 'standIns', responses: [
        new OA\Response(response: 200, description: 'Who answers for whom, now and later', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/StandIn'))),
    ])]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->standIns->all());
    }

    #[OA\Post(path: '/api/people/{person}/stand-ins', operationId: 'standIn', parameters: [
        new OA\Parameter(name: 'person', in: 'path', description: 'who is away', required: true, schema: new OA\Schema(type: 'integer')),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['substitute', 'first', 'last'], properties: [
        new OA\Property(property: 'substitute', description: 'who answers', type: 'integer'),
        new OA\Property(property: 'first', description: 'the first day, 2026-12-01', type: 'string'),
        new OA\Property(property: 'last', description: 'the last day, included', type: 'string'),
    ])), responses: [
        new OA\Response(response: 204, description: 'It is arranged'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(User $person, Request $request): JsonResponse
    {
        $request->validate(
            ['substitute' => ['required', 'integer', 'between:1,2147483647'], 'first' => ['bail', 'required', 'string', 'date_format:Y-m-d', 'after:2000-01-01', 'before:2200-01-01'], 'last' => ['bail', 'required', 'string', 'date_format:Y-m-d', 'after:2000-01-01', 'before:2200-01-01']],
            ['substitute.*' => 'Choose who answers meanwhile.', 'first.*' => 'Choose the first day.', 'last.*' => 'Choose the last day.'],
        );
        $this->standIns->arrange($person, $request->integer('substitute'), $request->string('first')->toString(), $request->string('last')->toString());

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/people/{person}/stand-ins/{standIn}', operationId: 'endStandIn', parameters: [
        new OA\Parameter(name: 'person', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
        new OA\Parameter(name: 'standIn', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 204, description: 'It is taken back'),
    ])]
    public function destroy(User $person, int $standIn): JsonResponse
    {
        $this->standIns->takeBack($person, $standIn);

        return new JsonResponse(null, 204);
    }
}
