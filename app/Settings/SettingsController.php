<?php

declare(strict_types=1);

namespace App\Settings;

use App\Figures\DatabaseWorkbook;
use App\Http\Download;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Kybernet\Core\Workbook\WorkbookWriter;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;

final readonly class SettingsController
{
    #[OA\Get(path: '/api/settings', operationId: 'settings', responses: [
        new OA\Response(response: 200, description: 'What the organisation sets for itself', content: new OA\JsonContent(ref: '#/components/schemas/Settings')),
    ])]
    public function show(SettingsReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($user));
    }

    #[OA\Put(path: '/api/settings', operationId: 'changeSettings', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/SettingsInput')), responses: [
        new OA\Response(response: 204, description: 'It is set'),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(SettingsRequest $request, SaveSettings $save): JsonResponse
    {
        $save($request->wanted(), $request->version());

        return new JsonResponse(null, 204);
    }

    #[OA\Get(path: '/api/settings/new-kpi', operationId: 'newKpi', responses: [
        new OA\Response(response: 200, description: 'What a new KPI begins with, as the person would type it', content: new OA\JsonContent(ref: '#/components/schemas/KpiDefaults')),
    ])]
    public function newKpi(SettingsReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->newKpi($user));
    }

    #[OA\Get(path: '/api/settings/everything', operationId: 'exportEverything', responses: [
        new OA\Response(response: 200, description: 'Everything as a workbook', content: new OA\MediaType(mediaType: 'application/json')),
    ])]
    public function everything(DatabaseWorkbook $workbook): StreamedResponse
    {
        return Download::json('organisation', WorkbookWriter::json($workbook->read()));
    }

    #[OA\Delete(path: '/api/demonstration', operationId: 'leaveDemonstration', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['name'], properties: [new OA\Property(property: 'name', description: 'of the organisation that is put away', type: 'string')])), responses: [
        new OA\Response(response: 200, description: 'It is put away; with the link an organisation of one’s own is begun here', content: new OA\JsonContent(required: ['link'], properties: [new OA\Property(property: 'link', type: 'string')])),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function leave(Request $request, LeaveDemonstration $leave): JsonResponse
    {
        $request->validate(['name' => ['required', 'string', 'max:200']], ['name.*' => 'Name what is put away.']);

        return new JsonResponse(['link' => "/begin#{$leave($request->string('name')->toString())}"]);
    }
}
