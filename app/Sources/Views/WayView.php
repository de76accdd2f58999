<?php

declare(strict_types=1);

namespace App\Sources\Views;

use Carbon\CarbonImmutable;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Way', description: 'How the records of a set come in.')]
#[OA\Schema(schema: 'WaySettings', required: ['url', 'header', 'pageField', 'host', 'port', 'database', 'user', 'sql', 'minutes'], properties: [
    new OA\Property(property: 'url', type: 'string'),
    new OA\Property(property: 'header', description: 'in which the secret goes', type: 'string'),
    new OA\Property(property: 'pageField', description: 'of the address, counted from 1 until a page is empty', type: 'string'),
    new OA\Property(property: 'host', type: 'string'),
    new OA\Property(property: 'port', type: 'integer'),
    new OA\Property(property: 'database', type: 'string'),
    new OA\Property(property: 'user', type: 'string'),
    new OA\Property(property: 'sql', type: 'string'),
    new OA\Property(property: 'minutes', description: 'between two times that it is asked', type: 'integer'),
], type: 'object')]
#[OA\Schema(schema: 'DemoServers', required: ['url', 'key', 'host', 'port', 'database', 'user', 'password', 'sql'], properties: [
    new OA\Property(property: 'url', type: 'string'),
    new OA\Property(property: 'key', type: 'string'),
    new OA\Property(property: 'host', type: 'string'),
    new OA\Property(property: 'port', type: 'integer'),
    new OA\Property(property: 'database', type: 'string'),
    new OA\Property(property: 'user', type: 'string'),
    new OA\Property(property: 'password', type: 'string'),
    new OA\Property(property: 'sql', type: 'string'),
], type: 'object')]
final readonly class WayView
{
    /** @param  array{url: string, header: string, pageField: string, host: string, port: int, database: string, user: string, sql: string, minutes: int}  $settings */
    private function __construct(
        #[OA\Property(enum: ['file', 'folder', 'address', 'query', 'sent'])] public string $way,
        #[OA\Property(ref: '#/components/schemas/WaySettings')] public object $settings,
        #[OA\Property(description: 'a secret is kept')] public bool $hasSecret,
        #[OA\Property(description: 'a token is given out')] public bool $hasToken,
        #[OA\Property(description: 'the token, shown this once')] public ?string $token,
        #[OA\Property(description: 'why it did not come in the last time; blank where it did')] public string $problem,
        #[OA\Property(description: 'when it was asked last, ISO 8601')] public ?string $asked,
        #[OA\Property(description: 'when it is asked next, ISO 8601')] public ?string $next,
        #[OA\Property(description: 'the folder on the server that is watched')] public string $folder,
        #[OA\Property(ref: '#/components/schemas/DemoServers', nullable: true, description: 'servers that stand in for others, in the demonstration')] public ?object $standIn,
    ) {}

    /**
     * @param  array{url: string, header: string, pageField: string, host: string, port: int, database: string, user: string, sql: string, minutes: int}  $settings
     * @param  array{etag: string|null, failures: int, problem: string, asked: string|null}  $state
     */
    public static function of(string $way, array $settings, bool $hasSecret, bool $hasToken, ?string $token, array $state, ?string $next, string $folder, ?object $standIn): self
    {
        return new self($way, (object) $settings, $hasSecret, $hasToken, $token, $state['problem'], $state['asked'], $next === null ? null : CarbonImmutable::parse($next)->utc()->toIso8601ZuluString(), $folder, $standIn);
    }
}
