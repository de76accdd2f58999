<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

final readonly class ShapeController
{
    public function __construct(private UnitShapes $shapes) {}

    #[OA\Post(path: '/api/unit-shapes/preview', operationId: 'previewShapes', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ShapesInput')), responses: [
        new OA\Response(response: 200, description: 'The regions of the file, and whose they seem to be', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/FoundShape'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function preview(ShapeRequest $request): JsonResponse
    {
        return new JsonResponse($this->shapes->match($request->regions()));
    }

    #[OA\Post(path: '/api/unit-shapes', operationId: 'takeShapes', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ShapesInput')), responses: [
        new OA\Response(response: 201, description: 'The units look so from now on', content: new OA\JsonContent(required: ['units'], properties: [new OA\Property(property: 'units', description: 'how many', type: 'integer')])),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(ShapeRequest $request): JsonResponse
    {
        return new JsonResponse(['units' => $this->shapes->take($request->regions(), $request->units())], 201);
    }

    #[OA\Delete(path: '/api/units/{unit}/shape', operationId: 'removeShape', parameters: [new OA\Parameter(ref: '#/components/parameters/unit')], responses: [
        new OA\Response(response: 204, description: 'It has none'),
    ])]
    public function destroy(Unit $unit): JsonResponse
    {
        $this->shapes->remove($unit);

        return new JsonResponse(null, 204);
    }
}
