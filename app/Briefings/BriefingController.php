<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Views\KindView;
use App\Http\UploadRequest;
use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use OpenApi\Attributes as OA;

final class BriefingController
{
    #[OA\Get(path: '/api/briefings', operationId: 'briefings', responses: [
        new OA\Response(response: 200, description: 'The briefings that this user reads or writes', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/BriefingLine'))),
    ])]
    public function index(BriefingReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->all($user));
    }

    #[OA\Get(path: '/api/briefing-kinds', operationId: 'briefingKinds', responses: [
        new OA\Response(response: 200, description: 'What pieces there are, and what each can be asked for', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/PieceKind'))),
    ])]
    public function kinds(): JsonResponse
    {
        return new JsonResponse(KindView::all());
    }

    #[OA\Get(path: '/api/briefings/{briefing}', operationId: 'briefing', parameters: [
        new OA\Parameter(ref: '#/components/parameters/briefing'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'span', in: 'query', required: false, description: 'its own where it is left out', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(name: 'unit', in: 'query', required: false, description: 'code of another unit than its own', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(ref: '#/components/parameters/week'),
        new OA\Parameter(name: 'issue', in: 'query', required: false, description: 'number of an issue', schema: new OA\Schema(type: 'integer')),
        new OA\Parameter(name: 'draft', in: 'query', required: false, description: '1 for what is being written', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'The page with all that its pieces show', content: new OA\JsonContent(ref: '#/components/schemas/BriefingPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function show(Briefing $briefing, BriefingRequest $request, BriefingReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($reader->page($briefing, $request->period(), $request->span($briefing), $request->unit($briefing), $request->issue(), $request->isDraft(), $user, $request->week()));
    }

    #[OA\Post(path: '/api/briefings', operationId: 'makeBriefing', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['name', 'unit', 'span', 'beginning', 'period'], properties: [
        new OA\Property(property: 'name', type: 'string', maxLength: 120),
        new OA\Property(property: 'unit', description: 'code of the unit that it is for', type: 'string'),
        new OA\Property(property: 'span', type: 'string'),
        new OA\Property(property: 'beginning', type: 'string', enum: Beginning::class),
        new OA\Property(property: 'period', type: 'string'),
        new OA\Property(property: 'kpi', description: 'that a page over its units is about', type: 'string', nullable: true),
        new OA\Property(property: 'from', description: 'code of a briefing that is copied instead', type: 'string', nullable: true),
    ])), responses: [
        new OA\Response(response: 201, description: 'Its code', content: new OA\JsonContent(required: ['code'], properties: [new OA\Property(property: 'code', type: 'string')])),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(MakeRequest $request, Beginnings $beginnings, SaveBriefing $save, #[CurrentUser] User $user): JsonResponse
    {
        $unit = $request->unit();
        Gate::authorize('makeFor', [Briefing::class, $unit]);
        $from = $request->from();
        if ($from !== null) {
            Gate::authorize('change', $from);
        }
        $content = $from === null ? $beginnings->content($request->beginning(), $unit, $request->period(), $request->string('kpi')->toString(), $user) : Content::ofJson($from->content)->copied();

        return new JsonResponse(['code' => $save->make($request->string('name')->squish()->toString(), $unit, $request->span(), $content, $user)->code], 201);
    }

    #[OA\Put(path: '/api/briefings/{briefing}/draft', operationId: 'keepDraft', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')],
        requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/BriefingContent')), responses: [
            new OA\Response(response: 200, description: 'Kept', content: new OA\JsonContent(required: ['version'], properties: [new OA\Property(property: 'version', type: 'integer')])),
            new OA\Response(ref: '#/components/responses/Problem', response: 409),
            new OA\Response(ref: '#/components/responses/Problem', response: 422),
        ])]
    public function keep(Briefing $briefing, ContentRequest $request, SaveBriefing $save, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(['version' => $save->keep($briefing, $request->filled('name') ? $request->name() : $briefing->name, $request->content(), $request->version(), $user)]);
    }

    #[OA\Post(path: '/api/briefings/{briefing}/preview', operationId: 'previewPieces', parameters: [
        new OA\Parameter(ref: '#/components/parameters/briefing'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['bands', 'period'], properties: [
        new OA\Property(property: 'period', type: 'string'),
        new OA\Property(property: 'span', type: 'string'),
        new OA\Property(property: 'bands', type: 'array', items: new OA\Items(type: 'array', items: new OA\Items(ref: '#/components/schemas/Piece'))),
    ])), responses: [
        new OA\Response(response: 200, description: 'What the pieces show', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/PieceAnswer'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function preview(Briefing $briefing, ContentRequest $request, PieceReader $pieces, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(['period' => ['required']], ['period.*' => 'A month such as 2026-08.']);
        $home = Unit::query()->findOrFail($briefing->unit_id);

        return new JsonResponse($pieces->answers($request->content(), new PageView($home, $home, $request->period(), $request->span($briefing->span)), $user));
    }

    #[OA\Get(path: '/api/briefings/{briefing}/commentary', operationId: 'draftCommentary', parameters: [
        new OA\Parameter(ref: '#/components/parameters/briefing'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'span', in: 'query', required: false, schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'The text of the month, to be corrected', content: new OA\JsonContent(required: ['text'], properties: [new OA\Property(property: 'text', type: 'string')])),
    ])]
    public function commentary(Briefing $briefing, BriefingRequest $request, CommentaryReader $reader, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(['text' => $reader->draft(Unit::query()->findOrFail($briefing->unit_id), $request->period(), $request->span($briefing), $user)]);
    }

    #[OA\Post(path: '/api/briefings/{briefing}/issues', operationId: 'publishBriefing', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')],
        requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['period', 'version'], properties: [
            new OA\Property(property: 'period', type: 'string'),
            new OA\Property(property: 'version', description: 'of the draft', type: 'integer'),
        ])), responses: [
            new OA\Response(response: 201, description: 'Published', content: new OA\JsonContent(required: ['number'], properties: [new OA\Property(property: 'number', type: 'integer')])),
            new OA\Response(ref: '#/components/responses/Problem', response: 409),
            new OA\Response(ref: '#/components/responses/Problem', response: 422),
        ])]
    public function publish(Briefing $briefing, PublishRequest $request, PublishBriefing $publish, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse(['number' => $publish($briefing, $request->period(), $request->integer('version'), $user)], 201);
    }

    #[OA\Get(path: '/api/briefings/{briefing}/arrangement', operationId: 'briefingArrangement', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')], responses: [
        new OA\Response(response: 200, description: 'For whom it is', content: new OA\JsonContent(ref: '#/components/schemas/Arrangement')),
    ])]
    public function arrangement(Briefing $briefing, ArrangementReader $reader): JsonResponse
    {
        return new JsonResponse($reader->read($briefing));
    }

    #[OA\Put(path: '/api/briefings/{briefing}/arrangement', operationId: 'arrangeBriefing', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')],
        requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['span', 'audience', 'readers', 'version'], properties: [
            new OA\Property(property: 'span', type: 'string'),
            new OA\Property(property: 'audience', type: 'string', enum: ['unit', 'people']),
            new OA\Property(property: 'readers', type: 'array', items: new OA\Items(type: 'integer')),
            new OA\Property(property: 'version', type: 'integer'),
        ])), responses: [
            new OA\Response(response: 200, description: 'Kept', content: new OA\JsonContent(required: ['version'], properties: [new OA\Property(property: 'version', type: 'integer')])),
            new OA\Response(ref: '#/components/responses/Problem', response: 409),
            new OA\Response(ref: '#/components/responses/Problem', response: 422),
        ])]
    public function arrange(Briefing $briefing, ArrangementRequest $request, SaveBriefing $save): JsonResponse
    {
        return new JsonResponse(['version' => $save->arrange($briefing, $request->span(), $request->string('audience')->toString(), $request->readers(), $request->integer('version'))]);
    }

    #[OA\Post(path: '/api/briefings/{briefing}/pictures', operationId: 'takePicture', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')],
        requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(required: ['file'], properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')]))), responses: [
            new OA\Response(response: 201, description: 'Its identity', content: new OA\JsonContent(required: ['picture'], properties: [new OA\Property(property: 'picture', type: 'integer')])),
            new OA\Response(ref: '#/components/responses/Problem', response: 422),
        ])]
    public function picture(Briefing $briefing, UploadRequest $request, Pictures $pictures): JsonResponse
    {
        try {
            return new JsonResponse(['picture' => $pictures->take($briefing, $request->upload()->getContent())], 201);
        } catch (InvalidArgumentException $bad) {
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
    }

    #[OA\Put(path: '/api/briefings/{briefing}/retirement', operationId: 'retireBriefing', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')], responses: [
        new OA\Response(response: 204, description: 'Only those who write it see it now'),
    ])]
    public function retire(Briefing $briefing, SaveBriefing $save): JsonResponse
    {
        $save->retire($briefing, true);

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/briefings/{briefing}/retirement', operationId: 'bringBackBriefing', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')], responses: [
        new OA\Response(response: 204, description: 'It is read again'),
    ])]
    public function bringBack(Briefing $briefing, SaveBriefing $save): JsonResponse
    {
        $save->retire($briefing, false);

        return new JsonResponse(null, 204);
    }
}
