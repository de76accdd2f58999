<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementStore;
use App\Http\PeriodRequest;
use App\Models\Action;
use App\Models\Measurement;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\Response;
use Kybernet\Core\Calendar\FinancialYear;
use OpenApi\Attributes as OA;

/** What people do about what they see: actions, calls, marks. */
final class FollowUpController
{
    #[OA\Post(path: '/api/measurements/{measurement}/actions/{period}', operationId: 'agreeAction', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/own-period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ActionInput')), responses: [
        new OA\Response(response: 201, description: 'Agreed'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function agree(Measurement $measurement, ActionRequest $request, SaveAction $save, #[CurrentUser] User $user): Response
    {
        $save->agree($measurement, $request->period(), $request->draft(), $user);

        return new Response(status: 201);
    }

    #[OA\Put(path: '/api/actions/{action}', operationId: 'followAction', parameters: [
        new OA\Parameter(name: 'action', in: 'path', required: true, description: 'identity of the action', schema: new OA\Schema(type: 'integer')),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ActionInput')), responses: [
        new OA\Response(response: 204, description: 'Kept'),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function follow(Action $action, ActionRequest $request, SaveAction $save): Response
    {
        $save->follow($action, $request->draft());

        return new Response(status: 204);
    }

    #[OA\Put(path: '/api/measurements/{measurement}/call', operationId: 'callStatus', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/CallInput')), responses: [
        new OA\Response(response: 204, description: 'Called, or taken back'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function call(Measurement $measurement, PeriodRequest $view, CallRequest $request, MeasurementStore $kpis, CallStatus $call, FinancialYear $year, #[CurrentUser] User $user): Response
    {
        $kpi = $kpis->one($measurement->id, $view->span()->firstMonth($view->period(), $year), $view->period()) ?? throw new \LogicException('A measurement that was found is there.');
        $call($kpi, $view->period(), $view->span(), $request->status(), $request->string('reason')->trim()->toString(), $user);

        return new Response(status: 204);
    }

    #[OA\Put(path: '/api/measurements/{measurement}/seen', operationId: 'markSeen', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/SeenInput')), responses: [
        new OA\Response(response: 204, description: 'Marked, or the mark taken back'),
    ])]
    public function seen(Measurement $measurement, SeenRequest $request, SeenMarks $marks, #[CurrentUser] User $user): Response
    {
        $marks->mark($user, $request->period(), $measurement->id, $request->reasons());

        return new Response(status: 204);
    }
}
