<?php

declare(strict_types=1);

namespace App\Review;

use App\Http\PeriodRequest;
use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\Unit;
use App\Models\User;
use App\Support\NumberSetting;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

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

    #[OA\Get(path: '/api/units/{unit}/weeks', operationId: 'weeks', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'The weeks of the month; none where nothing is measured by the week', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/RibbonWeek'))),
    ])]
    public function weeks(Unit $unit, PeriodRequest $request, WeeksReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->of($unit, $request->period(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/scorecard', operationId: 'scorecard', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'group', in: 'query', required: false, description: 'blank for departments or themes, as the unit asks for', schema: new OA\Schema(type: 'string', enum: ['', 'theme', 'level', 'none'])),
        new OA\Parameter(ref: '#/components/parameters/week'),
    ], responses: [
        new OA\Response(response: 200, description: 'The scorecard', content: new OA\JsonContent(ref: '#/components/schemas/ScorecardPage')),
    ])]
    #[OA\Get(path: '/api/programs/units/{unit}/scorecard', operationId: 'programScorecard', security: [['token' => []]], parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'group', in: 'query', required: false, description: 'blank for departments or themes, as the unit asks for', schema: new OA\Schema(type: 'string', enum: ['', 'theme', 'level', 'none'])),
    ], responses: [
        new OA\Response(response: 200, description: 'The scorecard', content: new OA\JsonContent(ref: '#/components/schemas/ScorecardPage')),
    ])]
    public function scorecard(Unit $unit, PeriodRequest $request, GroupRequest $rows, ScorecardReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($unit, $request->period(), $request->span(), $user, $rows->group(), $request->week()));
    }

    #[OA\Get(path: '/api/measurements/{measurement}', operationId: 'row', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], responses: [
        new OA\Response(response: 200, description: 'What stands behind a row', content: new OA\JsonContent(ref: '#/components/schemas/RowDetail')),
    ])]
    public function row(Measurement $measurement, PeriodRequest $request, RowReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->detail($measurement, $request->period(), $request->span(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/kpis/{kpi}', operationId: 'kpiPage', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/kpi'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/week'),
    ], responses: [
        new OA\Response(response: 200, description: 'A KPI in a unit, complete', content: new OA\JsonContent(ref: '#/components/schemas/KpiPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 404),
    ])]
    public function kpi(Unit $unit, Kpi $kpi, PeriodRequest $request, KpiPageReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($this->measured($unit, $kpi), $request->period(), $request->span(), $user, $request->week()));
    }

    #[OA\Get(path: '/api/units/{unit}/kpis/{kpi}/what-if', operationId: 'whatIf', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/kpi'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'as', in: 'query', required: false, description: 'the number setting in which the figures are written; the own one where it is left out', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'green', in: 'query', required: false, description: 'limits: those that are left out stay as they are', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'amber', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'low', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'high', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'marginLow', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'marginHigh', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'periods', in: 'query', required: false, description: 'how many recent ones', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'moved', in: 'query', required: false, description: 'targets moved by so many percent', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'same', in: 'query', required: false, description: 'the same target in each period', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'What the latest periods would have been', content: new OA\JsonContent(ref: '#/components/schemas/WhatIf')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function whatIf(Unit $unit, Kpi $kpi, WhatIfRequest $request, WhatIfReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->read($this->measured($unit, $kpi), $request->wanted(), new NumberSetting($user->locale)));
    }

    private function measured(Unit $unit, Kpi $kpi): Measurement
    {
        $measurement = Measurement::query()->where('unit_id', $unit->id)->where('kpi_id', $kpi->id)->first()
            ?? throw new NotFoundHttpException("{$kpi->name} is not measured in {$unit->name}.");
        Gate::authorize('view', $measurement);

        return $measurement;
    }

    #[OA\Get(path: '/api/units/{unit}/exceptions', operationId: 'exceptions', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], responses: [
        new OA\Response(response: 200, description: 'What deserves attention', content: new OA\JsonContent(ref: '#/components/schemas/ExceptionsPage')),
    ])]
    public function exceptions(Unit $unit, PeriodRequest $request, ExceptionReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($unit, $request->period(), $request->span(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/matrix', operationId: 'matrix', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'crossing', in: 'query', required: true, schema: new OA\Schema(type: 'string', enum: ['units-months', 'units-kpis', 'kpis-months'])),
        new OA\Parameter(name: 'kpi', in: 'query', required: false, description: 'code of the KPI that is crossed with units and months', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'months', in: 'query', required: false, description: 'how many months, up to the chosen one', schema: new OA\Schema(type: 'integer', enum: [12, 24, 36])),
    ], responses: [
        new OA\Response(response: 200, description: 'Two of units, KPIs and months crossed', content: new OA\JsonContent(ref: '#/components/schemas/MatrixPage')),
    ])]
    public function matrix(Unit $unit, PeriodRequest $view, MatrixRequest $request, MatrixReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($unit, $view->period(), $view->span(), $request->crossing(), $request->kpi(), $request->months(), $user));
    }

    #[OA\Get(path: '/api/texts', operationId: 'findTexts', parameters: [
        new OA\Parameter(name: 'words', in: 'query', required: true, schema: new OA\Schema(type: 'string', minLength: 2, maxLength: 100)),
    ], responses: [
        new OA\Response(response: 200, description: 'Notes and actions that hold the words', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/FoundText'))),
    ])]
    public function texts(WordsRequest $request, TextFinder $finder, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($finder->find($request->string('words')->toString(), $user));
    }
}
