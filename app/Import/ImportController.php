<?php

declare(strict_types=1);

namespace App\Import;

use App\Http\UploadRequest;
use App\Models\Import;
use App\Models\Unit;
use App\Models\User;
use App\Support\FileStep;
use App\Support\FileSteps;
use App\Support\NotAtThatPoint;
use App\Tables\BadTable;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

/**
 * Files of figures: sent, understood, previewed, applied, undone. Reading and writing are
 * done by workers, so that nobody waits for them, and tell how far they are.
 */
final readonly class ImportController
{
    public function __construct(private ImportReader $reader, private FileSteps $steps) {}

    #[OA\Post(path: '/api/units/{unit}/imports', operationId: 'sendFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')],
    ))), responses: [
        new OA\Response(response: 201, description: 'How its columns are understood', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Unit $unit, UploadRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        $batch = (string) Str::uuid();
        $path = Storage::disk('local')->path((string) $request->upload()->storeAs('imports', $batch, 'local'));
        try {
            [$sheet, $head, $mapping] = $this->reader->recognise($path, $user);
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
        $import = Import::query()->create([
            'batch' => $batch, 'user_id' => $user->id, 'unit_id' => $unit->id, 'file' => mb_substr($request->upload()->getClientOriginalName(), 0, 200), 'path' => $path,
            'state' => 'mapping', 'sheet' => $sheet, 'head' => $head, 'mapping' => self::kept($mapping),
        ]);

        return new JsonResponse($this->reader->page($import->refresh(), $user), 201);
    }

    #[OA\Get(path: '/api/imports/{import}', operationId: 'import', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
        new OA\Parameter(name: 'outcome', in: 'query', schema: new OA\Schema(type: 'string', enum: ['new', 'changed', 'same', 'refused'])),
        new OA\Parameter(name: 'page', in: 'query', schema: new OA\Schema(type: 'integer')),
    ], responses: [
        new OA\Response(response: 200, description: 'How far it is, and what it says', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
    ])]
    public function show(Import $import, ImportPageRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->reader->page($import, $user, $request->filled('outcome') ? $request->string('outcome')->toString() : null, max(1, $request->integer('page', 1))));
    }

    #[OA\Put(path: '/api/imports/{import}/head', operationId: 'placeHead', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/HeadInput')), responses: [
        new OA\Response(response: 200, description: 'How its columns are understood there', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function head(Import $import, HeadRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        if ($import->state !== 'mapping' || $import->path === null) {
            throw self::elsewhere();
        }
        try {
            [$sheet, $head, $mapping] = $this->reader->recogniseAt($import, $request->sheet(), $request->line(), $user);
        } catch (BadTable $bad) {
            throw ValidationException::withMessages(['sheet' => $bad->getMessage()]);
        }
        $import->update(['sheet' => $sheet, 'head' => $head, 'mapping' => self::kept($mapping)]);

        return new JsonResponse($this->reader->page($import->refresh(), $user));
    }

    #[OA\Put(path: '/api/imports/{import}/mapping', operationId: 'readFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/MappingInput')), responses: [
        new OA\Response(response: 202, description: 'It is being read', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function map(Import $import, MappingRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        if ($import->path === null) {
            throw self::elsewhere();
        }
        $mapping = $this->reader->corrected($import, $request->roles());
        if ($mapping->problem() !== '') {
            throw ValidationException::withMessages(['roles' => $mapping->problem()]);
        }

        return $this->begin($import, FileStep::Read, $user, ['rows_read' => 0, 'mapping' => json_encode(self::kept($mapping), JSON_THROW_ON_ERROR)]);
    }

    #[OA\Post(path: '/api/imports/{import}/application', operationId: 'applyImport', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being applied', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function apply(Import $import, #[CurrentUser] User $user): JsonResponse
    {
        return $this->begin($import, FileStep::Apply, $user);
    }

    #[OA\Delete(path: '/api/imports/{import}/application', operationId: 'undoImport', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being undone', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function undo(Import $import, #[CurrentUser] User $user): JsonResponse
    {
        return $this->begin($import, FileStep::Undo, $user);
    }

    /** @param  array<string, mixed>  $columns */
    private function begin(Import $import, FileStep $step, User $user, array $columns = []): JsonResponse
    {
        try {
            $this->steps->begin($import->id, $step, $columns);
        } catch (NotAtThatPoint) {
            throw self::elsewhere();
        }

        return new JsonResponse($this->reader->page($import->refresh(), $user), 202);
    }

    private static function elsewhere(): ValidationException
    {
        return ValidationException::withMessages(['state' => 'This import is not at that point: look at it again.']);
    }

    /** @return array{roles: object, periods: object} */
    private static function kept(Mapping $mapping): array
    {
        return ['roles' => (object) $mapping->roles, 'periods' => (object) $mapping->periods];
    }
}
