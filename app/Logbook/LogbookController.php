<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\Layer;
use App\Http\PeriodRequest;
use App\Logbook\Views\CellOutcome;
use App\Logbook\Views\SavedCells;
use App\Models\Measurement;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

final readonly class LogbookController
{
    public function __construct(private LogbookReader $logbook) {}

    #[OA\Get(path: '/api/units/{unit}/logbook', operationId: 'logbook', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'The month sheet', content: new OA\JsonContent(ref: '#/components/schemas/LogbookPage')),
    ])]
    public function show(Unit $unit, PeriodRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->logbook->page($unit, $request->period(), $user));
    }

    #[OA\Get(path: '/api/units/{unit}/grid', operationId: 'grid', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/layer'),
        new OA\Parameter(ref: '#/components/parameters/columns'),
    ], responses: [
        new OA\Response(response: 200, description: 'The year grid', content: new OA\JsonContent(ref: '#/components/schemas/GridPage')),
    ])]
    public function grid(Unit $unit, GridRequest $request, YearGridReader $grid, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($grid->page($unit, $request->period(), $request->layer(), $request->columns(), $user));
    }

    #[OA\Put(path: '/api/units/{unit}/cells', operationId: 'saveCells', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/layer'),
        new OA\Parameter(ref: '#/components/parameters/columns'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/CellsInput')), responses: [
        new OA\Response(response: 200, description: 'Good cells are saved, the others come back with their reason', content: new OA\JsonContent(ref: '#/components/schemas/SavedCells')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function cells(Unit $unit, GridRequest $view, CellsRequest $request, SaveCells $save, YearGridReader $grid, #[CurrentUser] User $user): JsonResponse
    {
        $outcomes = $save($request->cells(), $request->isTarget() ? Layer::Target : Layer::Reading, $user);
        $touched = array_values(array_unique(array_map(fn (CellOutcome $each): int => $each->measurement, $outcomes)));

        return new JsonResponse(new SavedCells(
            $outcomes,
            $grid->again($unit, $view->period(), $view->string('layer')->toString(), $view->columns(), $touched, $user),
        ));
    }

    #[OA\Post(path: '/api/units/{unit}/cells', operationId: 'tryCells', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/CellsInput')), responses: [
        new OA\Response(response: 200, description: 'How the cells would be read and judged; nothing is saved', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/CellVerdict'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function tryCells(Unit $unit, PeriodRequest $view, CellsRequest $request, CellTrial $trial, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($trial($request->cells(), $request->isTarget(), $view->period(), $user));
    }

    #[OA\Put(path: '/api/measurements/{measurement}/readings/{period}', operationId: 'saveReading', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/own-period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReadingInput')), responses: [
        new OA\Response(response: 200, description: 'Saved and judged', content: new OA\JsonContent(ref: '#/components/schemas/LogbookRow')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function reading(Measurement $measurement, string $period, ReadingRequest $request, SaveReading $save, #[CurrentUser] User $user): JsonResponse
    {
        $save($request->facts(), $request->period(), $request->value(), $request->typedParts(), $request->integer('version'), $request->note(), $user);

        return new JsonResponse($this->logbook->row($measurement, $request->period(), $user));
    }

    #[OA\Post(path: '/api/measurements/{measurement}/readings/{period}/preview', operationId: 'previewReading', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/own-period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReadingInput')), responses: [
        new OA\Response(response: 200, description: 'How the figure would be judged', content: new OA\JsonContent(ref: '#/components/schemas/Verdict')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function preview(Measurement $measurement, string $period, ReadingRequest $request): JsonResponse
    {
        return new JsonResponse($this->logbook->preview($measurement, $request->period(), $request->value()));
    }

    #[OA\Put(path: '/api/measurements/{measurement}/notes/{period}', operationId: 'saveNote', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/own-period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/NoteInput')), responses: [
        new OA\Response(response: 200, description: 'Saved', content: new OA\JsonContent(ref: '#/components/schemas/LogbookRow')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function note(Measurement $measurement, string $period, NoteRequest $request, SaveNote $save, #[CurrentUser] User $user): JsonResponse
    {
        $save($request->facts(), $request->period(), NoteRequest::note($request, ''), $request->integer('version'), $user);

        return new JsonResponse($this->logbook->row($measurement, $request->period(), $user));
    }
}
