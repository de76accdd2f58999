<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Models\User;
use App\Organisation\Views\UnitLineView;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

final readonly class UnitController
{
    #[OA\Get(path: '/api/units', operationId: 'unitTree', responses: [
        new OA\Response(response: 200, description: 'Every unit, top down', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/UnitTreeLine'))),
    ])]
    public function index(UnitTreeReader $reader): JsonResponse
    {
        return new JsonResponse($reader->read());
    }

    #[OA\Get(path: '/api/units/{unit}', operationId: 'unitPage', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], responses: [
        new OA\Response(response: 200, description: 'What is measured there, who answers, what it looks like', content: new OA\JsonContent(ref: '#/components/schemas/UnitPage')),
    ])]
    public function show(Unit $unit, UnitPageReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->read($unit, $user));
    }

    #[OA\Put(path: '/api/units/{unit}', operationId: 'changeUnit', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/UnitInput')), responses: [
        new OA\Response(response: 204, description: 'It is called so and stands there'),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function change(Unit $unit, UnitRequest $request, SaveUnit $save): JsonResponse
    {
        $save->change($unit, $request->wanted(), $request->seen());

        return new JsonResponse(null, 204);
    }

    #[OA\Put(path: '/api/units/{unit}/order', operationId: 'orderUnit', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['after'], properties: [
        new OA\Property(property: 'after', description: 'code of the one behind which it stands; null for the first place', type: 'string', nullable: true),
    ])), responses: [
        new OA\Response(response: 204, description: 'It stands there'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function order(Unit $unit, Request $request, OrderUnits $order): JsonResponse
    {
        $request->validate(['after' => ['present', 'nullable', 'string', 'max:64']], ['after.*' => 'Say behind which unit it stands.']);
        $order($unit, $request->filled('after') ? $request->string('after')->toString() : null);

        return new JsonResponse(null, 204);
    }

    #[OA\Put(path: '/api/units/{unit}/retirement', operationId: 'retireUnit', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['from'], properties: [
        new OA\Property(property: 'from', description: 'the first month in which nothing is measured there any longer', type: 'string'),
    ])), responses: [
        new OA\Response(response: 204, description: 'Nothing is measured there from then on'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function retire(Unit $unit, Request $request, RetireUnit $retire): JsonResponse
    {
        $request->validate(['from' => ['required', 'string', 'regex:/\A(199\d|20\d\d)-(0[1-9]|1[0-2])\z/']], ['from.*' => 'Choose a month.']);
        $retire->retire($unit, Period::parse($request->string('from')->toString()));

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/units/{unit}/retirement', operationId: 'bringUnitBack', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], responses: [
        new OA\Response(response: 204, description: 'What ended with it is measured again'),
    ])]
    public function bringBack(Unit $unit, RetireUnit $retire): JsonResponse
    {
        $retire->bringBack($unit);

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/units/{unit}', operationId: 'takeUnitAway', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], responses: [
        new OA\Response(response: 204, description: 'It is gone; nothing hung on it'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function takeAway(Unit $unit, SaveUnit $save): JsonResponse
    {
        $save->takeAway($unit);

        return new JsonResponse(null, 204);
    }

    #[OA\Post(path: '/api/unit-lists/preview', operationId: 'previewUnits', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/UnitListInput')), responses: [
        new OA\Response(response: 200, description: 'What the list would make', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/ListedUnit'))),
    ])]
    public function preview(UnitListRequest $request, UnitList $list): JsonResponse
    {
        return new JsonResponse(array_map(UnitLineView::of(...), $list->read($request->text(), $request->below())));
    }

    #[OA\Post(path: '/api/unit-lists', operationId: 'makeUnits', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/UnitListInput')), responses: [
        new OA\Response(response: 201, description: 'They were made', content: new OA\JsonContent(required: ['batch'], properties: [new OA\Property(property: 'batch', description: 'takes them back', type: 'string')])),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(UnitListRequest $request, MakeUnits $make): JsonResponse
    {
        return new JsonResponse(['batch' => $make($request->text(), $request->below())], 201);
    }

    #[OA\Delete(path: '/api/unit-lists/{batch}', operationId: 'takeUnitsBack', parameters: [
        new OA\Parameter(name: 'batch', in: 'path', required: true, schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 204, description: 'They are gone'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function destroy(string $batch, MakeUnits $make): JsonResponse
    {
        $make->takeBack($batch);

        return new JsonResponse(null, 204);
    }
}
