<?php

declare(strict_types=1);

namespace App\Settings;

use App\Support\Logo;
use App\Support\Trail;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

final readonly class LogoController
{
    public function __construct(private Logo $logo, private Trail $trail) {}

    #[OA\Get(path: '/api/logo', operationId: 'logo', responses: [
        new OA\Response(response: 200, description: 'The picture', content: new OA\MediaType(mediaType: 'image/png')),
        new OA\Response(ref: '#/components/responses/Problem', response: 404),
    ])]
    public function show(): Response
    {
        $logo = $this->logo->read() ?? throw new NotFoundHttpException;

        return new Response($logo['bytes'], 200, ['Content-Type' => $logo['type'], 'Cache-Control' => 'private, max-age=86400', 'ETag' => '"'.$logo['digest'].'"', 'X-Content-Type-Options' => 'nosniff']);
    }

    #[OA\Post(path: '/api/logo', operationId: 'takeLogo', requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')],
    ))), responses: [
        new OA\Response(response: 204, description: 'It stands on paper from now on'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Request $request): JsonResponse
    {
        $file = $request->file('file');
        if (! $file instanceof UploadedFile || ! $file->isValid() || $file->getSize() > Logo::MOST_BYTES) {
            throw ValidationException::withMessages(['file' => 'Choose a PNG or a JPEG of up to 512 kB.']);
        }
        try {
            $this->trail->within((string) Str::uuid(), '', fn () => $this->logo->take($file->getContent()));
        } catch (InvalidArgumentException $bad) {
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }

        return new JsonResponse(null, 204);
    }

    #[OA\Delete(path: '/api/logo', operationId: 'removeLogo', responses: [
        new OA\Response(response: 204, description: 'There is none'),
    ])]
    public function destroy(): JsonResponse
    {
        $this->trail->within((string) Str::uuid(), '', fn () => $this->logo->remove());

        return new JsonResponse(null, 204);
    }
}
