<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Exchange\Views\BookPreview;
use App\Exchange\Views\TakenSheet;
use App\Http\Download;
use App\Http\UploadRequest;
use App\Models\User;
use App\Tables\BadTable;
use App\Tables\BookSheet;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Contracts\Container\Container;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** An organisation as one workbook, with a sheet for each kind of thing. */
final readonly class BookController
{
    #[OA\Get(path: '/api/book', operationId: 'exportBook', parameters: [
        new OA\Parameter(name: 'empty', in: 'query', required: false, description: '1 for the sheets with their heads and explanations alone', schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'XLSX', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(Request $request, Container $container, #[CurrentUser] User $user): StreamedResponse
    {
        $isEmpty = $request->query('empty') === '1';
        $sheets = [];
        foreach ($container->tagged('book-sheets') as $sheet) {
            if ($sheet instanceof BookSheet) {
                $sheets[] = $sheet;
            }
        }

        return Download::book($isEmpty ? 'organisation-empty' : 'organisation', $sheets, $isEmpty, $user);
    }

    #[OA\Post(path: '/api/book', operationId: 'sendBook', requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')],
    ))), responses: [
        new OA\Response(response: 200, description: 'What the workbook would do', content: new OA\JsonContent(ref: '#/components/schemas/BookPreview')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(UploadRequest $request, TakeBook $take, #[CurrentUser] User $user): JsonResponse
    {
        $upload = (string) Str::uuid();
        $path = Storage::disk('local')->path((string) $request->upload()->storeAs('books', $upload, 'local'));
        try {
            $preview = $take($path, $upload, false, $user);
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }

        // Links of people who are not invited yet would lead nowhere.
        return new JsonResponse(new BookPreview($upload, false, array_map(fn (TakenSheet $sheet): TakenSheet => $sheet->withoutLinks(), $preview->sheets)));
    }

    #[OA\Post(path: '/api/book/{upload}', operationId: 'takeBook', parameters: [
        new OA\Parameter(name: 'upload', in: 'path', required: true, schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'What it did; nothing where something of it is refused', content: new OA\JsonContent(ref: '#/components/schemas/BookPreview')),
        new OA\Response(ref: '#/components/responses/Problem', response: 404),
    ])]
    public function apply(string $upload, TakeBook $take, #[CurrentUser] User $user): JsonResponse
    {
        $path = Storage::disk('local')->path("books/{$upload}");
        // Whoever takes the file away is the one who applies it; asked twice at once, the second finds nothing.
        if (! @rename($path, "{$path}.taken")) {
            throw new NotFoundHttpException;
        }
        try {
            $preview = $take("{$path}.taken", $upload, true, $user);
        } finally {
            rename("{$path}.taken", $path);
        }
        if ($preview->applied) {
            unlink($path);
        }

        return new JsonResponse($preview);
    }
}
