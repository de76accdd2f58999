<?php

declare(strict_types=1);

namespace App\Trail;

use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** The trail: who changed what, when, from what to what. */
final readonly class ChangeController
{
    #[OA\Get(path: '/api/changes', operationId: 'changes', parameters: [
        new OA\Parameter(name: 'kpi', in: 'query', description: 'code of a KPI', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'unit', in: 'query', description: 'code of a unit; those below it count', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'person', in: 'query', description: 'identity of who changed it', schema: new OA\Schema(type: 'integer')),
        new OA\Parameter(name: 'subject', in: 'query', schema: new OA\Schema(type: 'string', enum: ChangeReader::SUBJECTS)),
        new OA\Parameter(name: 'month', in: 'query', description: 'the month that the figure is of, 2026-08', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'before', in: 'query', description: 'identity of the oldest entry seen: older ones follow', schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 200, description: 'Newest first', content: new OA\JsonContent(ref: '#/components/schemas/ChangesPage')),
    ])]
    public function __invoke(ChangesRequest $request, ChangeReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($request->filters(), $user));
    }
}
