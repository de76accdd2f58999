<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** Themes and objectives: the light lists that definitions choose from. */
final readonly class ListController
{
    #[OA\Put(path: '/api/lists', operationId: 'saveLists', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ListsInput')), responses: [
        new OA\Response(response: 200, description: 'The register', content: new OA\JsonContent(ref: '#/components/schemas/RegisterPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(ListsRequest $request, SaveLists $save, RegisterReader $register, #[CurrentUser] User $user): JsonResponse
    {
        $save($request->items('themes'), $request->items('objectives'));

        return new JsonResponse($register->page($user));
    }
}
