<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordSet;
use App\Sources\Views\WayView;
use App\Support\Installation;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;

/** How the records of a set come in by themselves. */
final readonly class WayController
{
    public function __construct(private WaySettings $settings, private AskSources $sources, private Repository $config, private Installation $installation) {}

    #[OA\Get(path: '/api/record-sets/{recordSet}/way', operationId: 'way', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], responses: [
        new OA\Response(response: 200, description: 'How its records come in', content: new OA\JsonContent(ref: '#/components/schemas/Way')),
    ])]
    public function show(RecordSet $recordSet): JsonResponse
    {
        return new JsonResponse($this->view($recordSet, null));
    }

    #[OA\Put(path: '/api/record-sets/{recordSet}/way', operationId: 'changeWay', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(required: ['way', 'settings', 'secret'], properties: [
        new OA\Property(property: 'way', type: 'string', enum: ['file', 'folder', 'address', 'query', 'sent']),
        new OA\Property(property: 'settings', ref: '#/components/schemas/WaySettings'),
        new OA\Property(property: 'secret', description: 'null: the one that is kept stays', type: 'string', nullable: true),
    ])), responses: [
        new OA\Response(response: 200, description: 'So they come in from now on', content: new OA\JsonContent(ref: '#/components/schemas/Way')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(RecordSet $recordSet, Request $request): JsonResponse
    {
        $request->validate([
            'way' => ['required', Rule::in(['file', 'folder', 'address', 'query', 'sent'])],
            'settings' => ['required', 'array'],
            'settings.url' => ['bail', 'required_if:way,address', 'nullable', 'string', 'max:2000'],
            'settings.header' => ['bail', 'nullable', 'string', 'max:100', 'regex:/\A[A-Za-z0-9-]*\z/'],
            'settings.pageField' => ['bail', 'nullable', 'string', 'max:60', 'regex:/\A[A-Za-z0-9_.-]*\z/'],
            'settings.host' => ['bail', 'required_if:way,query', 'nullable', 'string', 'max:253', 'regex:/\A[A-Za-z0-9._:-]*\z/'],
            'settings.port' => ['required', 'integer', 'between:1,65535'],
            'settings.database' => ['bail', 'required_if:way,query', 'nullable', 'string', 'max:63'],
            'settings.user' => ['bail', 'required_if:way,query', 'nullable', 'string', 'max:63'],
            'settings.sql' => ['bail', 'required_if:way,query', 'nullable', 'string', 'max:20000'],
            'settings.minutes' => ['required', 'integer', 'between:5,43200'],
            'secret' => ['present', 'nullable', 'string', 'max:2000'],
        ], [
            'way.*' => 'Choose how records come in.', 'settings.url.*' => 'The address that is asked.', 'settings.header.*' => 'The name of a header, such as X-Key.', 'settings.pageField.*' => 'The name of a field of the address, such as page.',
            'settings.host.*' => 'The name of a server.', 'settings.port.*' => 'A port from 1 to 65535.', 'settings.database.*' => 'The name of a database.', 'settings.user.*' => 'An account that can only read.',
            'settings.sql.*' => 'One query that gives a row a record.', 'settings.minutes.*' => 'From every five minutes to every thirty days.', 'secret.*' => 'Up to 2,000 characters.',
        ]);
        $text = fn (string $name): string => $request->string("settings.{$name}")->trim()->toString();
        $settings = ['url' => $text('url'), 'header' => $text('header'), 'pageField' => $text('pageField'), 'host' => $text('host'), 'port' => $request->integer('settings.port'), 'database' => $text('database'), 'user' => $text('user'), 'sql' => $text('sql'), 'minutes' => $request->integer('settings.minutes')];
        $way = $request->string('way')->toString();
        try {
            match ($way) {
                'address' => AskedAddress::of($settings['url'], $this->config),
                'query' => AskedAddress::of("http://{$settings['host']}:{$settings['port']}", $this->config),
                default => null,
            };
        } catch (NotAsked $problem) {
            throw ValidationException::withMessages([$way === 'address' ? 'settings.url' : 'settings.host' => $problem->getMessage()]);
        }
        $token = $this->settings->change($recordSet, $way, $settings, $request->input('secret') === null ? null : $request->string('secret')->toString());

        return new JsonResponse($this->view($recordSet->refresh(), $token));
    }

    #[OA\Post(path: '/api/record-sets/{recordSet}/asking', operationId: 'askNow', parameters: [
        new OA\Parameter(ref: '#/components/parameters/recordSet'),
    ], responses: [
        new OA\Response(response: 202, description: 'It is asked', content: new OA\JsonContent(ref: '#/components/schemas/Way')),
    ])]
    public function ask(RecordSet $recordSet): JsonResponse
    {
        AskJob::dispatch($recordSet->id);

        return new JsonResponse($this->view($recordSet, null), 202);
    }

    private function view(RecordSet $set, ?string $token): WayView
    {
        $state = $this->sources->state($set->id);
        $kept = $set->newQuery()->toBase()->where('id', $set->id)->first(['secret', 'asked_next', 'token_hash']);

        return WayView::of($set->way, $this->settings->of($set->id), $kept?->secret !== null, $kept?->token_hash !== null, $token, $state, is_string($kept?->asked_next) ? $kept->asked_next : null, Storage::disk('local')->path("inbox/{$set->code}"), $this->standIn());
    }

    /** Only in a demonstration there are any; what they ask for is no secret. */
    private function standIn(): ?object
    {
        $text = $this->installation->isDemonstration() ? $this->config->string('kybernet.stand_in') : '';
        $known = $text === '' ? null : json_decode($text);

        return is_object($known) ? $known : null;
    }
}
