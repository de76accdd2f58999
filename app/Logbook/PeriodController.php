<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Http\PeriodRequest;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;

/** Handing in, checking, closing and reopening a month. */
final readonly class PeriodController
{
    public function __construct(private ClosingReader $closing) {}

    #[OA\Post(path: '/api/units/{unit}/submission', operationId: 'submitMonth', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'What was handed in, and what is still open', content: new OA\JsonContent(ref: '#/components/schemas/Submission')),
    ])]
    public function submit(Unit $unit, PeriodRequest $request, LogbookReader $logbook, SubmitMonth $submit, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($submit($logbook->entries($unit, $request->period(), $user)));
    }

    #[OA\Get(path: '/api/units/{unit}/closing', operationId: 'closing', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'The check list of the month', content: new OA\JsonContent(ref: '#/components/schemas/ClosingPage')),
    ])]
    public function show(Unit $unit, PeriodRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->closing->page($unit, $request->period(), $user));
    }

    #[OA\Put(path: '/api/units/{unit}/closing', operationId: 'closeMonth', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'Closed, for the unit and all below it', content: new OA\JsonContent(ref: '#/components/schemas/ClosingPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function close(Unit $unit, PeriodRequest $request, ClosePeriod $period, #[CurrentUser] User $user): JsonResponse
    {
        $period->close($unit, $request->period(), $user);

        return $this->show($unit, $request, $user);
    }

    #[OA\Post(path: '/api/units/{unit}/reopening', operationId: 'reopenMonth', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReopenInput')), responses: [
        new OA\Response(response: 200, description: 'Open again', content: new OA\JsonContent(ref: '#/components/schemas/ClosingPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function reopen(Unit $unit, PeriodRequest $view, ReopenRequest $request, ClosePeriod $period, #[CurrentUser] User $user): JsonResponse
    {
        $period->reopen($unit, $view->period(), $request->string('reason')->trim()->toString());

        return $this->show($unit, $view, $user);
    }
}
