<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\Kpi;
use App\Models\User;
use App\Register\Views\StarterView;
use App\Support\Currencies;
use App\Support\Installation;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

final readonly class StarterController
{
    #[OA\Get(path: '/api/starters', operationId: 'starters', responses: [
        new OA\Response(response: 200, description: 'Common measures to begin with', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/Starter'))),
    ])]
    public function index(StarterList $list, Installation $installation): JsonResponse
    {
        $taken = Kpi::query()->pluck('code')->map(fn (mixed $code): string => is_string($code) ? strtolower($code) : '')->flip();

        return new JsonResponse(array_values(array_map(
            fn (StarterKpi $starter): StarterView => StarterView::of($starter, Currencies::symbol($installation->currency()), $taken->has(strtolower($starter->code))),
            $list->all(),
        )));
    }

    #[OA\Post(path: '/api/starters', operationId: 'takeStarters', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['codes', 'unit'], properties: [
        new OA\Property(property: 'codes', description: 'with them comes what they are worked out from', type: 'array', maxItems: 200, minItems: 1, items: new OA\Items(type: 'string')),
        new OA\Property(property: 'unit', description: 'code of the unit in which they are measured', type: 'string'),
    ])), responses: [
        new OA\Response(response: 201, description: 'They are drafts in the register: their codes', content: new OA\JsonContent(type: 'array', items: new OA\Items(type: 'string'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Request $request, TakeStarters $take, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(
            ['codes' => ['required', 'array', 'list', 'between:1,200'], 'codes.*' => ['required', 'string', 'max:64'], 'unit' => ['required', 'string', 'exists:units,code']],
            ['codes.*' => 'Choose measures to begin with.', 'codes' => 'Choose measures to begin with.', 'unit.*' => 'Choose where they are measured.'],
        );
        /** @var list<string> $codes */
        $codes = $request->array('codes');

        return new JsonResponse($take($codes, $request->string('unit')->toString(), $user), 201);
    }
}
