<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Models\User;
use App\Support\FileStep;
use App\Support\FileSteps;
use App\Support\NotAtThatPoint;
use App\Tables\BadTable;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

/** Loads of records by hand: sent, previewed, brought in, taken back. */
final readonly class LoadController
{
    private const MOST_KILOBYTES = 204_800;

    public function __construct(private SourceReader $reader, private FileSteps $steps, private Loads $loads) {}

    #[OA\Post(path: '/api/record-sets/{recordSet}/loads', operationId: 'sendRecords', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary'),
            new OA\Property(property: 'mode', type: 'string', enum: ['add', 'key', 'all']),
            new OA\Property(property: 'coversTo', description: 'up to which day the set is complete with it', type: 'string'),
        ],
    ))), responses: [
        new OA\Response(response: 201, description: 'It is being read', content: new OA\JsonContent(ref: '#/components/schemas/LoadPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(RecordSet $recordSet, Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(
            ['file' => ['required', 'file', 'max:'.self::MOST_KILOBYTES], 'mode' => ['sometimes', Rule::in(['add', 'key', 'all'])], 'coversTo' => ['bail', 'nullable', 'string', 'date_format:Y-m-d']],
            ['file.required' => 'Choose a file.', 'file.*' => 'The file is larger than 200 MB, or did not arrive. Put it into the watched folder, or split it.', 'coversTo.*' => 'A day such as 2026-08-31.'],
        );
        if ($recordSet->retired_at !== null) {
            throw ValidationException::withMessages(['file' => 'This set is retired and takes no records.']);
        }
        /** @var UploadedFile $file */
        $file = $request->file('file');
        $path = Storage::disk('local')->path((string) $file->storeAs('records', (string) Str::uuid(), 'local'));
        try {
            (new RecordFile($path))->top(1);
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
        $load = $this->loads->file($recordSet, $path, $file->getClientOriginalName(), $request->filled('mode') ? $request->string('mode')->toString() : $recordSet->mode, $this->loads->mapping($recordSet->id), $request->filled('coversTo') ? $request->string('coversTo')->toString() : null, $user->id);

        return new JsonResponse($this->reader->load($load), 201);
    }

    #[OA\Get(path: '/api/record-loads/{recordLoad}', operationId: 'load', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordLoad'),
    ], responses: [
        new OA\Response(response: 200, description: 'How far it is, and what it brings', content: new OA\JsonContent(ref: '#/components/schemas/LoadPage')),
    ])]
    public function show(RecordLoad $recordLoad): JsonResponse
    {
        return new JsonResponse($this->reader->load($recordLoad));
    }

    #[OA\Post(path: '/api/record-loads/{recordLoad}/application', operationId: 'bringIn', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordLoad'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being brought in', content: new OA\JsonContent(ref: '#/components/schemas/LoadPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function apply(RecordLoad $recordLoad): JsonResponse
    {
        return $this->begin($recordLoad, FileStep::Apply);
    }

    #[OA\Delete(path: '/api/record-loads/{recordLoad}/application', operationId: 'takeBack', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordLoad'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being taken back', content: new OA\JsonContent(ref: '#/components/schemas/LoadPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function undo(RecordLoad $recordLoad): JsonResponse
    {
        return $this->begin($recordLoad, FileStep::Undo);
    }

    private function begin(RecordLoad $load, FileStep $step): JsonResponse
    {
        try {
            $this->steps->begin($load->id, $step);
        } catch (NotAtThatPoint) {
            throw ValidationException::withMessages(['state' => 'This load is not at that point: look at it again.']);
        }

        return new JsonResponse($this->reader->load($load->refresh()), 202);
    }
}
