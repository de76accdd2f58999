<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Support\Installation;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

final readonly class FirstMonthController
{
    #[OA\Get(path: '/api/first-month', operationId: 'firstMonth', responses: [
        new OA\Response(response: 200, description: 'How far the first steps have come', content: new OA\JsonContent(ref: '#/components/schemas/FirstMonth')),
    ])]
    public function show(FirstMonthReader $reader): JsonResponse
    {
        return new JsonResponse($reader->read());
    }

    #[OA\Delete(path: '/api/first-month', operationId: 'putFirstMonthAway', responses: [new OA\Response(response: 204, description: 'The first steps are not shown any longer')])]
    public function destroy(Installation $installation): JsonResponse
    {
        $installation->settle();

        return new JsonResponse(null, 204);
    }
}
