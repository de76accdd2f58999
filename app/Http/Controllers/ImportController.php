<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Figures\AssessmentStore;
use App\Http\Requests\ImportPageRequest;
use App\Http\Requests\MappingRequest;
use App\Http\Requests\UploadRequest;
use App\Import\ImportFigures;
use App\Import\ImportReader;
use App\Import\ReadFile;
use App\Models\Import;
use App\Models\Unit;
use App\Models\User;
use App\Tables\BadTable;
use App\Tables\Table;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Contracts\Foundation\Application;
use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use stdClass;

/**
 * Files of figures: sent, understood, previewed, applied, undone. Reading and writing go on after the answer, so that
 * nobody waits for them, and tell how far they are.
 */
final readonly class ImportController
{
    private const MOST_SECONDS = 900;

    public function __construct(private ImportReader $reader, private Application $application, private AssessmentStore $assessments) {}

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
            foreach (Table::open($path)->rows() as $row) {
                break;
            }
            if (! isset($row)) {
                throw new BadTable('The file has no rows.');
            }
        } catch (BadTable $bad) {
            unlink($path);
            throw ValidationException::withMessages(['file' => $bad->getMessage()]);
        }
        $mapping = $this->reader->recognise($path, $user);
        $import = Import::query()->create([
            'batch' => $batch, 'user_id' => $user->id, 'unit_id' => $unit->id, 'file' => mb_substr($request->upload()->getClientOriginalName(), 0, 200), 'path' => $path,
            'state' => 'mapping', 'mapping' => ['roles' => (object) $mapping->roles, 'periods' => (object) $mapping->periods],
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

    #[OA\Put(path: '/api/imports/{import}/mapping', operationId: 'readFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/MappingInput')), responses: [
        new OA\Response(response: 202, description: 'It is being read', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function map(Import $import, MappingRequest $request, ReadFile $read, #[CurrentUser] User $user): JsonResponse
    {
        $this->mustBe($import, ['mapping', 'ready', 'failed']);
        $mapping = $this->reader->corrected($import, $request->roles());
        if ($mapping->problem() !== '') {
            throw ValidationException::withMessages(['roles' => $mapping->problem()]);
        }
        $import->update(['state' => 'reading', 'rows_read' => 0, 'problem' => '', 'mapping' => ['roles' => (object) $mapping->roles, 'periods' => (object) $mapping->periods]]);
        $this->afterwards($import, 'mapping', fn () => $read($import->id, $import->path, $mapping, $import->unit_id, $user));

        return new JsonResponse($this->reader->page($import, $user), 202);
    }

    #[OA\Post(path: '/api/imports/{import}/application', operationId: 'applyImport', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being applied', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function apply(Import $import, ImportFigures $figures, #[CurrentUser] User $user): JsonResponse
    {
        $this->mustBe($import, ['ready']);
        $import->update(['state' => 'applying']);
        $this->afterwards($import, 'ready', fn () => $figures->apply($this->row($import), $user->id));

        return new JsonResponse($this->reader->page($import, $user), 202);
    }

    #[OA\Delete(path: '/api/imports/{import}/application', operationId: 'undoImport', parameters: [
        new OA\Parameter(ref: '#/components/parameters/import'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is being undone', content: new OA\JsonContent(ref: '#/components/schemas/ImportPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function undo(Import $import, ImportFigures $figures, #[CurrentUser] User $user): JsonResponse
    {
        $this->mustBe($import, ['applied']);
        $import->update(['state' => 'applying']);
        $this->afterwards($import, 'applied', fn () => $figures->undo($this->row($import)));

        return new JsonResponse($this->reader->page($import, $user), 202);
    }

    /** @param  list<string>  $states */
    private function mustBe(Import $import, array $states): void
    {
        if (! in_array($import->state, $states, true)) {
            throw ValidationException::withMessages(['state' => 'This import is not at that point: look at it again.']);
        }
    }

    private function row(Import $import): stdClass
    {
        return (object) ['id' => $import->id, 'batch' => $import->batch];
    }

    /**
     * Goes on when the answer is on its way; what breaks puts the import back to where it was, with a sentence.
     *
     * @param  \Closure(): void  $work
     */
    private function afterwards(Import $import, string $before, \Closure $work): void
    {
        $isDone = false;
        $this->application->terminating(function () use ($import, $before, $work, &$isDone): void {
            // An application that outlives the request would do it again after the next one.
            if ($isDone) {
                return;
            }
            $isDone = true;
            set_time_limit(self::MOST_SECONDS);
            try {
                $work();
            } catch (\Throwable $broken) {
                report($broken);
                $import->update(['state' => $before, 'problem' => 'Something went wrong here while the file was handled. Nothing was changed; try again.']);
            }
            if ($import->refresh()->state !== $before) {
                $this->refresh();
            }
        });
    }

    /** Whoever looks next does not wait for thousands of figures to be judged; if this breaks, they are judged then. */
    private function refresh(): void
    {
        try {
            $this->assessments->refresh();
        } catch (\Throwable $broken) {
            report($broken);
        }
    }
}
