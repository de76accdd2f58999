<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\Briefing;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;

/** Links with which a briefing is read without an account. */
final class LinkController
{
    public function __construct(private Links $links) {}

    #[OA\Get(path: '/api/briefings/{briefing}/links', operationId: 'readingLinks', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')], responses: [
        new OA\Response(response: 200, description: 'Its links', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/ReadingLink'))),
    ])]
    public function index(Briefing $briefing): JsonResponse
    {
        return new JsonResponse($this->links->of($briefing));
    }

    #[OA\Post(path: '/api/briefings/{briefing}/links', operationId: 'makeReadingLink', parameters: [new OA\Parameter(ref: '#/components/parameters/briefing')],
        requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['name', 'until', 'masked'], properties: [
            new OA\Property(property: 'name', description: 'for whom it is', type: 'string', maxLength: 120),
            new OA\Property(property: 'until', description: 'the last day on which it opens, up to a year from now', type: 'string'),
            new OA\Property(property: 'masked', description: 'units are called by letters', type: 'boolean'),
        ])), responses: [
            new OA\Response(response: 201, description: 'The secret of the link, shown this once', content: new OA\JsonContent(required: ['secret'], properties: [new OA\Property(property: 'secret', type: 'string')])),
            new OA\Response(ref: '#/components/responses/Problem', response: 422),
        ])]
    public function store(Briefing $briefing, Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate([
            'name' => ['bail', 'required', 'string', 'max:120'],
            'until' => ['bail', 'required', 'string', 'date_format:Y-m-d', 'after_or_equal:today', 'before:+367 days'],
            'masked' => ['required', 'boolean'],
        ], ['name.*' => 'For whom is the link?', 'until.*' => 'Choose a last day, from today to a year from now.']);

        return new JsonResponse(['secret' => $this->links->make($briefing, $request->string('name')->squish()->toString(), $request->string('until')->toString(), $request->boolean('masked'), $user)], 201);
    }

    #[OA\Delete(path: '/api/briefings/{briefing}/links/{link}', operationId: 'endReadingLink', parameters: [
        new OA\Parameter(ref: '#/components/parameters/briefing'),
        new OA\Parameter(name: 'link', in: 'path', required: true, schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 204, description: 'It opens nothing any more'),
    ])]
    public function destroy(Briefing $briefing, int $link): JsonResponse
    {
        $this->links->end($briefing, $link);

        return new JsonResponse(null, 204);
    }
}
