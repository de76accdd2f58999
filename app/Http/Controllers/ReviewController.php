<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Figures\RibbonReader;
use App\Figures\RowReader;
use App\Figures\ScorecardReader;
use App\Http\Requests\PeriodRequest;
use App\Models\KpiUnit;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

final class ReviewController
{
    #[OA\Get(path: '/api/units/{unit}/ribbon', operationId: 'ribbon', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'The year ribbon', content: new OA\JsonContent(ref: '#/components/schemas/RibbonPage')),
    ])]
    public function ribbon(Unit $unit, PeriodRequest $request, RibbonReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($unit, $request->period(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/scorecard', operationId: 'scorecard', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], responses: [
        new OA\Response(response: 200, description: 'The scorecard', content: new OA\JsonContent(ref: '#/components/schemas/ScorecardPage')),
    ])]
    public function scorecard(Unit $unit, PeriodRequest $request, ScorecardReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($unit, $request->period(), $request->span(), $user));
    }

    #[OA\Get(path: '/api/measured/{measured}', operationId: 'row', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measured'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], responses: [
        new OA\Response(response: 200, description: 'What stands behind a row', content: new OA\JsonContent(ref: '#/components/schemas/RowDetail')),
    ])]
    public function row(KpiUnit $measured, PeriodRequest $request, RowReader $reader): JsonResponse
    {
        return new JsonResponse($reader->detail($measured, $request->period(), $request->span()));
    }
}
