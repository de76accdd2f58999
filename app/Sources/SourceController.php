<?php

declare(strict_types=1);

namespace App\Sources;

use App\Http\Download;
use App\Http\UploadRequest;
use App\Models\RecordSet;
use App\Models\User;
use App\Organisation\Organisation;
use App\Records\RecordKeeper;
use App\Records\RecordSets;
use App\Tables\BadTable;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Record sets: made from a sample, changed, retired. */
final readonly class SourceController
{
    public function __construct(private SourceReader $reader, private SaveSet $save, private Organisation $organisation) {}

    #[OA\Get(path: '/api/record-sets', operationId: 'sources', responses: [
        new OA\Response(response: 200, description: 'The record sets that the person sees', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/SourceLine'))),
    ])]
    public function index(#[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->reader->all($user));
    }

    #[OA\Get(path: '/api/record-sets/{recordSet}', operationId: 'source', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], responses: [
        new OA\Response(response: 200, description: 'A record set', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
    ])]
    public function show(RecordSet $recordSet, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->reader->page($recordSet, $user));
    }

    #[OA\Post(path: '/api/record-samples', operationId: 'sendSample', requestBody: new OA\RequestBody(required: true, content: new OA\MediaType(mediaType: 'multipart/form-data', schema: new OA\Schema(
        required: ['file'],
        properties: [new OA\Property(property: 'file', type: 'string', format: 'binary')],
    ))), responses: [
        new OA\Response(response: 200, description: 'How its columns are understood', content: new OA\JsonContent(ref: '#/components/schemas/RecordSample')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function sample(UploadRequest $request, SampleReader $samples, #[CurrentUser] User $user): JsonResponse
    {
        $upload = (string) Str::uuid();
        $path = Storage::disk('local')->path((string) $request->upload()->storeAs('records', $upload, 'local'));
        try {
            return new JsonResponse($samples->read($path, $upload, mb_substr($request->upload()->getClientOriginalName(), 0, 200), $user->locale === 'en-US'));
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
    }

    #[OA\Post(path: '/api/record-sets', operationId: 'makeSource', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/RecordSetInput')), responses: [
        new OA\Response(response: 201, description: 'It was made', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(SetRequest $request, Loads $loads, #[CurrentUser] User $user): JsonResponse
    {
        $wanted = $request->wanted($this->organisation);
        $set = $this->save->make($wanted);
        $path = $request->filled('upload') ? Storage::disk('local')->path("records/{$request->string('upload')}") : null;
        if ($path !== null && is_file($path)) {
            $loads->file($set, $path, $request->string('file')->toString(), 'key', $loads->mapping($set->id), $wanted->coversTo, $user->id);
        }

        return new JsonResponse($this->reader->page($set, $user), 201);
    }

    #[OA\Post(path: '/api/record-values', operationId: 'tryValues', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['fields'], properties: [
        new OA\Property(property: 'fields', description: 'as of a record set', type: 'array', items: new OA\Items(type: 'object', additionalProperties: true)),
        new OA\Property(property: 'upload', description: 'a file that is not brought in yet', type: 'string', nullable: true),
        new OA\Property(property: 'set', description: 'code of a set that is there', type: 'string', nullable: true),
    ])), responses: [
        new OA\Response(response: 200, description: 'What they give of the first records', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/CalculatedValues'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function values(Request $request, ValuesReader $values, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate([
            'fields' => ['required', 'array', 'max:200'], 'fields.*' => ['array'], 'upload' => ['nullable', 'uuid'], 'set' => ['bail', 'nullable', 'string', 'max:64'],
            'fields.*.name' => ['bail', 'nullable', 'string', 'max:64'], 'fields.*.expression' => ['bail', 'nullable', 'string', 'max:2000'],
        ], ['*' => 'These are no fields of records.']);
        $text = fn (mixed $given): ?string => is_string($given) && $given !== '' ? $given : null;
        $fields = array_map(fn (array $field): array => [
            'name' => $text($field['name'] ?? null) ?? '', 'was' => $text($field['was'] ?? null), 'type' => $text($field['type'] ?? null), 'expression' => $text($field['expression'] ?? null),
            'column' => $text($field['column'] ?? null), 'form' => $text($field['form'] ?? null) ?? '',
        ], array_values(array_filter($request->array('fields'), is_array(...))));
        $path = $request->filled('upload') ? Storage::disk('local')->path("records/{$request->string('upload')}") : null;
        $set = $request->filled('set') ? RecordSet::query()->where('code', $request->string('set')->toString())->first() : null;

        return new JsonResponse($values->read($fields, $path !== null && is_file($path) ? $path : null, $set !== null && $user->can('view', $set) ? $set->code : null));
    }

    #[OA\Put(path: '/api/record-sets/{recordSet}', operationId: 'changeSource', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/RecordSetInput')), responses: [
        new OA\Response(response: 200, description: 'It was changed', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(RecordSet $recordSet, SetRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        $this->save->change($recordSet, $request->wanted($this->organisation));

        return new JsonResponse($this->reader->page($recordSet->refresh(), $user));
    }

    #[OA\Get(path: '/api/record-sets/{recordSet}/file', operationId: 'sourceFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'Its records as a file, without what is sensitive', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(RecordSet $recordSet, Request $request, RecordSets $sets, RecordKeeper $records): StreamedResponse
    {
        $request->validate(['format' => ['required', Rule::in(['csv', 'xlsx'])]], ['format.*' => 'csv or xlsx.']);

        return Download::table("{$recordSet->code}-records", $request->string('format')->toString(), $records->table($sets->of($recordSet->id)), []);
    }

    #[OA\Put(path: '/api/record-sets/{recordSet}/unit-names', operationId: 'nameUnits', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['names'], properties: [
        new OA\Property(property: 'names', description: 'codes of units by the names that records give them; a blank code takes a name away', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
    ])), responses: [
        new OA\Response(response: 200, description: 'They are known now', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function names(RecordSet $recordSet, Request $request, #[CurrentUser] User $user): JsonResponse
    {
        $request->validate(['names' => ['required', 'array', 'max:500'], 'names.*' => ['bail', 'nullable', 'string', Rule::exists('units', 'code')]], ['names.*' => 'Choose a unit.']);
        $this->save->name($recordSet, SetRequest::texts($request->array('names')));

        return new JsonResponse($this->reader->page($recordSet->refresh(), $user));
    }

    #[OA\Put(path: '/api/record-sets/{recordSet}/retirement', operationId: 'retireSource', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], responses: [
        new OA\Response(response: 200, description: 'It takes no records any more', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
    ])]
    public function retire(RecordSet $recordSet, #[CurrentUser] User $user): JsonResponse
    {
        $this->save->retire($recordSet, true);

        return new JsonResponse($this->reader->page($recordSet->refresh(), $user));
    }

    #[OA\Delete(path: '/api/record-sets/{recordSet}/retirement', operationId: 'bringSourceBack', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], responses: [
        new OA\Response(response: 200, description: 'It takes records again', content: new OA\JsonContent(ref: '#/components/schemas/SourcePage')),
    ])]
    public function bringBack(RecordSet $recordSet, #[CurrentUser] User $user): JsonResponse
    {
        $this->save->retire($recordSet, false);

        return new JsonResponse($this->reader->page($recordSet->refresh(), $user));
    }
}
