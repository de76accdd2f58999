<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Sources\Views\SentLoad;
use Illuminate\Database\UniqueConstraintViolationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpKernel\Exception\UnauthorizedHttpException;

/** Records that a program sends, with the token of the set; what is sent twice under one key is taken once. */
final readonly class SentController
{
    public function __construct(private Loads $loads) {}

    #[OA\Post(path: '/api/record-sets/{recordSet}/records', operationId: 'sendRecordsByToken', security: [['token' => []]], parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
        new OA\Parameter(name: 'Idempotency-Key', in: 'header', required: false, description: 'what is sent again with the same key is not taken again', schema: new OA\Schema(type: 'string', maxLength: 200)),
    ], requestBody: new OA\RequestBody(required: true, content: [
        new OA\MediaType(mediaType: 'application/x-ndjson', schema: new OA\Schema(type: 'string')),
        new OA\MediaType(mediaType: 'text/csv', schema: new OA\Schema(type: 'string')),
    ]), responses: [
        new OA\Response(response: 202, description: 'It is being read, and brought in after that', content: new OA\JsonContent(ref: '#/components/schemas/SentLoad')),
        new OA\Response(ref: '#/components/responses/Problem', response: 401),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(string $recordSet, Request $request): JsonResponse
    {
        $set = $this->set($recordSet, $request->bearerToken());
        $mark = $request->header('Idempotency-Key');
        $mark = is_string($mark) && $mark !== '' ? mb_substr($mark, 0, 200) : null;
        $known = fn (): ?RecordLoad => $mark === null ? null : RecordLoad::query()->where('record_set_id', $set->id)->where('mark', $mark)->first();
        $before = $known();
        if ($before !== null) {
            return new JsonResponse(SentLoad::of($before), 202);
        }
        $path = Storage::disk('local')->path('records/'.Str::uuid());
        Storage::disk('local')->makeDirectory('records');
        $body = $request->getContent(true);
        $bytes = file_put_contents($path, $body);
        if ($bytes === false || $bytes === 0) {
            throw ValidationException::withMessages(['body' => 'Nothing was sent.']);
        }

        try {
            $load = $this->loads->unattended($set, 'sent', $path, 'sent by a program', $this->loads->mapping($set->id), now()->subDay()->toDateString(), null, $mark);
        } catch (UniqueConstraintViolationException $twice) {
            // The same was sent again before the first was answered.
            unlink($path);
            $load = $known() ?? throw $twice;
        }

        return new JsonResponse(SentLoad::of($load), 202);
    }

    #[OA\Get(path: '/api/record-sets/{recordSet}/records/{recordLoad}', operationId: 'sentRecords', security: [['token' => []]], parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
        new OA\Parameter(ref: '#/components/parameters/recordLoad'),
    ], responses: [
        new OA\Response(response: 200, description: 'How far it is', content: new OA\JsonContent(ref: '#/components/schemas/SentLoad')),
        new OA\Response(ref: '#/components/responses/Problem', response: 401),
    ])]
    public function show(string $recordSet, int $recordLoad, Request $request): JsonResponse
    {
        $set = $this->set($recordSet, $request->bearerToken());

        return new JsonResponse(SentLoad::of(RecordLoad::query()->where('record_set_id', $set->id)->whereKey($recordLoad)->firstOrFail()));
    }

    /** @throws UnauthorizedHttpException where the token is none of this set: whether there is such a set is not told */
    private function set(string $code, #[\SensitiveParameter] ?string $token): RecordSet
    {
        $set = $token === null || ! str_starts_with($token, WaySettings::PREFIX) ? null : RecordSet::query()->where('code', $code)->where('way', 'sent')->where('token_hash', hash('sha256', $token))->whereNull('retired_at')->first();

        return $set ?? throw new UnauthorizedHttpException('Bearer', 'This token brings no records in here.');
    }
}
