<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\SaveNote;
use App\Actions\SaveReading;
use App\Figures\LogbookReader;
use App\Http\Requests\NoteRequest;
use App\Http\Requests\PeriodRequest;
use App\Http\Requests\ReadingRequest;
use App\Models\KpiUnit;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Kybernet\Core\Calendar\Period;
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

    #[OA\Put(path: '/api/measured/{measured}/readings/{period}', operationId: 'saveReading', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measured'),
        new OA\Parameter(ref: '#/components/parameters/month'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReadingInput')), responses: [
        new OA\Response(response: 200, description: 'Saved and judged', content: new OA\JsonContent(ref: '#/components/schemas/LogbookRow')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function reading(KpiUnit $measured, string $period, ReadingRequest $request, SaveReading $save, #[CurrentUser] User $user): JsonResponse
    {
        $save($measured, $request->period(), $request->figure(), $request->integer('version'), $user);

        return new JsonResponse($this->logbook->row($measured, $request->period(), $user));
    }

    #[OA\Post(path: '/api/measured/{measured}/readings/{period}/preview', operationId: 'previewReading', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measured'),
        new OA\Parameter(ref: '#/components/parameters/month'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReadingInput')), responses: [
        new OA\Response(response: 200, description: 'How the figure would be judged', content: new OA\JsonContent(ref: '#/components/schemas/Verdict')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function preview(KpiUnit $measured, string $period, ReadingRequest $request): JsonResponse
    {
        return new JsonResponse($this->logbook->preview($measured, $request->period(), $request->figure()));
    }

    #[OA\Put(path: '/api/measured/{measured}/notes/{period}', operationId: 'saveNote', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measured'),
        new OA\Parameter(ref: '#/components/parameters/month'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/NoteInput')), responses: [
        new OA\Response(response: 200, description: 'Saved', content: new OA\JsonContent(ref: '#/components/schemas/LogbookRow')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function note(KpiUnit $measured, string $period, NoteRequest $request, SaveNote $save, #[CurrentUser] User $user): JsonResponse
    {
        $month = Period::parse($period);
        $save($measured, $month, $request->string('text')->trim()->toString(), $request->integer('version'), $user);

        return new JsonResponse($this->logbook->row($measured, $month, $user));
    }
}
