<?php

declare(strict_types=1);

namespace App\Briefings;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** What is read without an account: the latest issue behind a link, or sheets that the server prints. Nothing else. */
final class ReadingController
{
    #[OA\Get(path: '/api/reading', operationId: 'reading', security: [['token' => []]], responses: [
        new OA\Response(response: 200, description: 'Pages to be read', content: new OA\JsonContent(ref: '#/components/schemas/Reading')),
        new OA\Response(ref: '#/components/responses/Problem', response: 404),
    ])]
    public function __invoke(Request $request, Sheets $sheets, Links $links, PublicReader $reader): JsonResponse
    {
        $secret = $request->bearerToken() ?? '';
        $laid = str_starts_with($secret, Sheets::PREFIX) ? $sheets->take($secret) : null;
        if ($laid !== null) {
            return JsonResponse::fromJsonString($laid);
        }
        $opened = str_starts_with($secret, Links::PREFIX) ? $links->open($secret) : null;
        $page = $opened === null ? null : $reader->page(...$opened);
        if ($page === null) {
            throw new NotFoundHttpException('This link leads nowhere, or no longer.');
        }
        $links->count($secret);

        return new JsonResponse($page);
    }
}
