<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** Planning targets. A plan is only shown; it is saved as cells of the year grid are. */
final readonly class TargetController
{
    #[OA\Post(path: '/api/targets/plan', operationId: 'planTargets', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/TargetPlanInput')), responses: [
        new OA\Response(response: 200, description: 'The targets as they would be', content: new OA\JsonContent(ref: '#/components/schemas/TargetPlan')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function plan(TargetPlanRequest $request, TargetPlanner $planner, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($planner->plan($request->wanted(), $user));
    }
}
