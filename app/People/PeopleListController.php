<?php

declare(strict_types=1);

namespace App\People;

use App\Http\Download;
use App\Http\ExportRequest;
use App\Models\Role;
use App\Organisation\Organisation;
use App\People\Views\ListedPersonView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** People as a list: looked at before it is taken, and as a file. */
final readonly class PeopleListController
{
    #[OA\Get(path: '/api/people/file', operationId: 'exportPeople', parameters: [new OA\Parameter(ref: '#/components/parameters/format')], responses: [
        new OA\Response(response: 200, description: 'A line for each role of everybody', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function file(ExportRequest $request, PeopleReader $reader): StreamedResponse
    {
        $rows = [['E-mail', 'Name', 'Role', 'Unit', 'State', 'Last here']];
        foreach ($reader->read() as $person) {
            foreach ($person->roles as $held) {
                $rows[] = [$person->email, $person->name, strtolower(Role::from($held->role)->words()), $held->unit, $person->state, substr($person->seen ?? '', 0, 10)];
            }
        }

        return Download::table('people', $request->kind(), $rows, []);
    }

    #[OA\Post(path: '/api/people-lists/preview', operationId: 'previewPeople', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['list'], properties: [new OA\Property(property: 'list', type: 'string', maxLength: 200_000)])), responses: [
        new OA\Response(response: 200, description: 'What the list would do', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/ListedPerson'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function preview(Request $request, Organisation $organisation): JsonResponse
    {
        return new JsonResponse(array_map(fn (ListedPerson $person): ListedPersonView => ListedPersonView::of($person), (new PeopleList($organisation))->read($this->text($request))));
    }

    #[OA\Post(path: '/api/people-lists', operationId: 'takePeople', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['list'], properties: [new OA\Property(property: 'list', type: 'string', maxLength: 200_000)])), responses: [
        new OA\Response(response: 201, description: 'Those who are new are invited; their links, shown this once', content: new OA\JsonContent(type: 'array', items: new OA\Items(required: ['email', 'link'], properties: [
            new OA\Property(property: 'email', type: 'string'), new OA\Property(property: 'link', ref: '#/components/schemas/EntryLink'),
        ], type: 'object'))),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(Request $request, TakePeopleList $take, SendLink $send): JsonResponse
    {
        $links = $take($this->text($request));

        return new JsonResponse(array_map(fn (string $email, string $secret): array => ['email' => $email, 'link' => $send($email, $secret)], array_keys($links), $links), 201);
    }

    private function text(Request $request): string
    {
        $request->validate(['list' => ['required', 'string', 'max:200000']], ['list.required' => 'Type or paste a list.', 'list.max' => 'The list is too long: up to 200,000 characters.', 'list.*' => 'Type or paste a list.']);

        return $request->string('list')->toString();
    }
}
