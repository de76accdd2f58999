<?php

declare(strict_types=1);

namespace App\Compare;

use App\Http\Download;
use App\Http\ExportRequest;
use App\Http\PeriodRequest;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;

#[OA\Parameter(parameter: 'unitKind', name: 'kind', in: 'query', required: false, description: 'what the units are, such as zone; the kind with the most without it', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'comparedKpis', name: 'kpis', in: 'query', required: false, description: 'codes of at most eight KPIs, between commas; the first five without it', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'against', name: 'against', in: 'query', required: false, description: 'another month to hold the figures against', schema: new OA\Schema(type: 'string'))]
final readonly class CompareController
{
    public function __construct(private CompareReader $reader) {}

    #[OA\Get(path: '/api/units/{unit}/comparison', operationId: 'comparison', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/unitKind'),
        new OA\Parameter(ref: '#/components/parameters/comparedKpis'),
        new OA\Parameter(name: 'kpi', in: 'query', required: false, description: 'code of one that is to be among the first five', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(ref: '#/components/parameters/against'),
    ], responses: [
        new OA\Response(response: 200, description: 'Like units beside each other', content: new OA\JsonContent(ref: '#/components/schemas/ComparePage')),
    ])]
    public function show(Unit $unit, PeriodRequest $view, CompareRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->reader->page($unit, $view->period(), $view->span(), $request->kind(), $request->kpis(), $request->kpi(), $request->against(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/comparison/ranks', operationId: 'ranksOverTime', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/unitKind'),
        new OA\Parameter(name: 'kpi', in: 'query', required: true, description: 'code of the KPI', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'How they have ranked over thirteen months', content: new OA\JsonContent(ref: '#/components/schemas/RanksOverTime')),
    ])]
    public function ranks(Unit $unit, PeriodRequest $view, CompareRequest $request, RanksReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->read($unit, $view->period(), $view->span(), $request->kind(), $request->kpi(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/comparison/file', operationId: 'comparisonFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/format'),
        new OA\Parameter(ref: '#/components/parameters/unitKind'),
        new OA\Parameter(ref: '#/components/parameters/comparedKpis'),
        new OA\Parameter(name: 'kpi', in: 'query', required: false, description: 'code of one that is to be among the first five', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(ref: '#/components/parameters/against'),
        new OA\Parameter(name: 'masked', in: 'query', required: false, description: '1 for letters in place of names', schema: new OA\Schema(type: 'string', enum: ['1'])),
    ], responses: [
        new OA\Response(response: 200, description: 'The comparison as a file, with ranks and percentiles', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(Unit $unit, PeriodRequest $view, CompareRequest $request, ExportRequest $export, CompareTable $table, #[CurrentUser] User $user): StreamedResponse
    {
        $page = $this->reader->page($unit, $view->period(), $view->span(), $request->kind(), $request->kpis(), $request->kpi(), $request->against(), $user);

        return Download::table("{$unit->code}-comparison-{$view->period()->key()}", $export->kind(), $table->rows($page, $request->isMasked()), $table->figures($page));
    }
}
