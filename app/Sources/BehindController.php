<?php

declare(strict_types=1);

namespace App\Sources;

use App\Http\Download;
use App\Models\Measurement;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** What stands behind a counted figure: its records, its cases, its parts. */
final readonly class BehindController
{
    public function __construct(private BehindFinder $finder) {}

    #[OA\Get(path: '/api/measurements/{measurement}/records', operationId: 'recordsBehind', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'sort', in: 'query', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'down', in: 'query', schema: new OA\Schema(type: 'boolean')),
        new OA\Parameter(name: 'search', in: 'query', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'page', in: 'query', schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 200, description: 'The records that the figure counts', content: new OA\JsonContent(ref: '#/components/schemas/RecordPage')),
    ])]
    public function records(Measurement $measurement, BehindRequest $request, RecordsReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($this->behind($measurement, $request), $request->wanted(), $user));
    }

    #[OA\Get(path: '/api/measurements/{measurement}/records/file', operationId: 'recordsFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The same as a file, without what is sensitive', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(Measurement $measurement, BehindRequest $request, RecordsReader $reader, #[CurrentUser] User $user): StreamedResponse
    {
        $behind = $this->behind($measurement, $request);

        return Download::table("{$behind->kpi->code}-{$request->period()->key()}-records", $request->kind(), $reader->all($behind, $request->wanted(), $user), []);
    }

    #[OA\Get(path: '/api/measurements/{measurement}/cases', operationId: 'casesBehind', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'by', description: 'a field by which rows are made, or steps', in: 'query', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'goal', description: 'another goal, as this user types it', in: 'query', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'The cases', content: new OA\JsonContent(ref: '#/components/schemas/CasesPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function cases(Measurement $measurement, BehindRequest $request, CasesReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->read($this->behind($measurement, $request), $request->period(), $request->span(), $request->by(), $request->goal(), $user));
    }

    #[OA\Get(path: '/api/measurements/{measurement}/splits', operationId: 'splitsBehind', parameters: [
        new OA\Parameter(ref: '#/components/parameters/measurement'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
    ], responses: [
        new OA\Response(response: 200, description: 'The figure in its parts', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/SplitView'))),
    ])]
    public function splits(Measurement $measurement, BehindRequest $request, SplitsReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->read($measurement, $request->period(), $request->span(), $user));
    }

    private function behind(Measurement $measurement, BehindRequest $request): Behind
    {
        return $this->finder->find($measurement, $request->period(), $request->span()) ?? throw new NotFoundHttpException('This KPI is not counted from records.');
    }
}
