<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\DatabaseWorkbook;
use App\Http\Download;
use App\Http\ExportRequest;
use App\Http\UploadRequest;
use App\Models\User;
use App\Register\Views\DefinitionPreview;
use App\Tables\BadTable;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Workbook\WorkbookWriter;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** Files of definitions: previewed, then applied as a whole or not at all. */
final readonly class DefinitionController
{
    public function __construct(private ImportDefinitions $import) {}

    #[OA\Get(path: '/api/definitions', operationId: 'exportDefinitions', parameters: [
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'All definitions as a file', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(ExportRequest $request, DatabaseWorkbook $workbook): StreamedResponse
    {
        $definitions = $workbook->definitions();
        if ($request->kind() === 'json') {
            return Download::json('definitions', WorkbookWriter::json($definitions));
        }

        return Download::table('definitions', $request->kind(), DefinitionTable::rows($definitions), DefinitionTable::figures());
    }

    #[OA\Post(path: '/api/definitions', operationId: 'sendDefinitions', requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')],
    ))), responses: [
        new OA\Response(response: 200, description: 'What the file would change', content: new OA\JsonContent(ref: '#/components/schemas/DefinitionPreview')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(UploadRequest $request): JsonResponse
    {
        $upload = (string) Str::uuid();
        $file = $request->upload()->getClientOriginalName();
        $path = Storage::disk('local')->path((string) $request->upload()->storeAs('definitions', $upload, 'local'));
        file_put_contents("{$path}.name", $file);
        try {
            return new JsonResponse(new DefinitionPreview($upload, $file, false, $this->import->preview($path)));
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
    }

    #[OA\Post(path: '/api/definitions/{upload}', operationId: 'applyDefinitions', parameters: [
        new OA\Parameter(name: 'upload', in: 'path', required: true, schema: new OA\Schema(type: 'string')),
    ], responses: [
        new OA\Response(response: 200, description: 'What was changed', content: new OA\JsonContent(ref: '#/components/schemas/DefinitionPreview')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function apply(string $upload, #[CurrentUser] User $user): JsonResponse
    {
        $path = Storage::disk('local')->path("definitions/{$upload}");
        // Whoever takes the file away is the one who applies it; asked twice at once, the second finds nothing.
        $taken = "{$path}.taken";
        if (! @rename($path, $taken)) {
            throw new NotFoundHttpException;
        }
        try {
            $rows = $this->import->apply($taken, $user);
        } catch (\Throwable $refused) {
            rename($taken, $path);
            throw $refused;
        }
        $file = (string) file_get_contents("{$path}.name");
        unlink($taken);
        unlink("{$path}.name");

        return new JsonResponse(new DefinitionPreview($upload, $file, true, $rows));
    }
}
