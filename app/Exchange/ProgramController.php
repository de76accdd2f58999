<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Exchange\Views\WrittenReading;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** What programs write. */
final readonly class ProgramController
{
    #[OA\Put(path: '/api/programs/readings', operationId: 'writeReadings', description: 'All of them or none: where one cannot be written, nothing is. What stands there already is left as it is, so a request whose answer was lost may be sent again.', security: [['token' => []]], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ProgramReadings')), responses: [
        new OA\Response(response: 200, description: 'What became of each, in the order of the request', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/WrittenReading'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 401),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function write(ProgramReadingsRequest $request, WriteReadings $write, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(array_map(fn (string $outcome): WrittenReading => new WrittenReading($outcome), $write($request->readings(), $user)));
    }
}
