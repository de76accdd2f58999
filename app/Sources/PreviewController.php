<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** What a KPI would be, while somebody says how it is counted. */
final readonly class PreviewController
{
    #[OA\Post(path: '/api/record-preview', operationId: 'previewCount', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/CountPreviewInput')), responses: [
        new OA\Response(response: 200, description: 'What it would give', content: new OA\JsonContent(ref: '#/components/schemas/CountPreview')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function __invoke(PreviewRequest $request, CountPreviewer $previewer, #[CurrentUser] User $user): JsonResponse
    {
        $unit = Unit::query()->where('code', $request->string('unit')->toString())->firstOrFail();

        return new JsonResponse($previewer->read($request->array('counted'), $request->array('splits'), $request->string('kpi')->toString(), $unit, $request->month(), $request->frequency(), $request->integer('decimals'), $user));
    }
}
