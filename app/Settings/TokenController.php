<?php

declare(strict_types=1);

namespace App\Settings;

use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

final readonly class TokenController
{
    public function __construct(private Tokens $tokens) {}

    #[OA\Get(path: '/api/tokens', operationId: 'tokens', responses: [
        new OA\Response(response: 200, description: 'The programs that may come', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/TokenLine'))),
    ])]
    public function index(): JsonResponse
    {
        return new JsonResponse($this->tokens->all());
    }

    #[OA\Post(path: '/api/tokens', operationId: 'makeToken', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['name', 'unit', 'writes', 'until'], properties: [
        new OA\Property(property: 'name', type: 'string', maxLength: 120),
        new OA\Property(property: 'unit', description: 'code of the unit that it may see, with all below it', type: 'string'),
        new OA\Property(property: 'writes', description: 'whether it enters readings', type: 'boolean'),
        new OA\Property(property: 'until', description: 'the last day on which it is taken, up to two years from now', type: 'string'),
    ])), responses: [
        new OA\Response(response: 201, description: 'The token, shown this once', content: new OA\JsonContent(required: ['token'], properties: [new OA\Property(property: 'token', type: 'string')])),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate([
            'name' => ['required', 'string', 'max:120'],
            'unit' => ['required', 'string', 'exists:units,code'],
            'writes' => ['required', 'boolean'],
            'until' => ['bail', 'required', 'string', 'date_format:Y-m-d', 'after_or_equal:today', 'before:+731 days'],
        ], ['name.*' => 'What is the program called?', 'unit.*' => 'Choose what it may see.', 'until.*' => 'Choose a last day, from today to two years from now.']);
        $unit = Unit::query()->where('code', $request->string('unit')->toString())->firstOrFail();

        return new JsonResponse(['token' => $this->tokens->make($request->string('name')->squish()->toString(), $unit, $request->boolean('writes'), $request->string('until')->toString(), $user)], 201);
    }

    #[OA\Delete(path: '/api/tokens/{token}', operationId: 'revokeToken', parameters: [
        new OA\Parameter(name: 'token', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 204, description: 'It is taken no longer'),
    ])]
    public function destroy(int $token): JsonResponse
    {
        $this->tokens->revoke($token);

        return new JsonResponse(null, 204);
    }
}
