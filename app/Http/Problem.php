<?php

declare(strict_types=1);

namespace App\Http;

use App\Support\Conflict;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\QueryException;
use Illuminate\Http\JsonResponse;
use Illuminate\Session\TokenMismatchException;
use Illuminate\Validation\ValidationException;
use OpenApi\Attributes as OA;
use PDOException;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Throwable;

/**
 * Errors of the API as RFC 9457 problem details. `errors` names each field at fault by JSON pointer.
 */
#[OA\Schema(
    schema: 'Problem',
    properties: [
        new OA\Property(property: 'type', type: 'string'),
        new OA\Property(property: 'title', type: 'string'),
        new OA\Property(property: 'status', type: 'integer'),
        new OA\Property(property: 'detail', type: 'string'),
        new OA\Property(
            property: 'errors',
            type: 'array',
            items: new OA\Items(
                required: ['pointer', 'detail'],
                properties: [new OA\Property(property: 'pointer', type: 'string'), new OA\Property(property: 'detail', type: 'string')],
                type: 'object',
            ),
        ),
        new OA\Property(
            property: 'current',
            description: 'what stands there now, when somebody else changed it',
            properties: [
                new OA\Property(property: 'text', type: 'string'),
                new OA\Property(property: 'outlook', description: 'of a note', type: 'string'),
                new OA\Property(property: 'doing', description: 'of a note', type: 'string'),
                new OA\Property(property: 'version', type: 'integer'),
                new OA\Property(property: 'by', type: 'string'),
            ],
            type: 'object',
            nullable: true,
        ),
    ],
    type: 'object',
)]
final class Problem
{
    /** What the database says when something would change in a closed month. */
    private const CLOSED = 'KY001';

    public static function from(Throwable $error): JsonResponse
    {
        [$status, $type, $title, $detail] = self::describe($error);

        return new JsonResponse([
            'type' => "/problems/{$type}",
            'title' => $title,
            'status' => $status,
            'detail' => $detail,
            'errors' => $error instanceof ValidationException ? self::fields($error) : [],
            'current' => $error instanceof Conflict ? $error->current : null,
        ], $status, [
            'Content-Type' => 'application/problem+json',
            'Cache-Control' => 'no-store, private',
            ...($status === 503 ? ['Retry-After' => '2'] : []),
            ...($error instanceof HttpExceptionInterface ? $error->getHeaders() : []),
        ]);
    }

    /** Whether the database cannot be reached just now: nothing is wrong with the request, and it is worth sending again. */
    public static function isAway(Throwable $error): bool
    {
        for ($each = $error; $each !== null; $each = $each->getPrevious()) {
            // Classes of SQLSTATE: connection exceptions, and operator intervention (shut down, starting up, too many connections).
            if ($each instanceof PDOException && preg_match('/\A(?:08|57P|53300)/', (string) ($each->errorInfo[0] ?? $each->getCode())) === 1) {
                return true;
            }
            if ($each instanceof PDOException && preg_match('/connection to server|server closed the connection|could not connect|terminating connection|no connection to the server|SSL connection has been closed/', $each->getMessage()) === 1) {
                return true;
            }
        }

        return false;
    }

    /** @return array{int, string, string, string} */
    private static function describe(Throwable $error): array
    {
        $code = $error instanceof HttpExceptionInterface ? $error->getStatusCode() : 500;

        return match (true) {
            self::isAway($error) => [503, 'away', 'The database cannot be reached just now', 'What you typed is kept here and is sent when it is back.'],
            // Values that no column can hold passed the checks at the edge: they are still nobody's mistake but the request's.
            $error instanceof QueryException && str_starts_with((string) ($error->errorInfo[0] ?? ''), '22') => [422, 'invalid', 'Something needs correcting', 'Nothing was saved: a value of the request cannot be kept.'],
            $error instanceof ValidationException => [422, 'invalid', 'Something needs correcting', 'Nothing was saved. Please look at the fields that are marked.'],
            $error instanceof QueryException && $error->getCode() === self::CLOSED => [422, 'closed', 'The month is closed', 'Nothing was saved: a figure of this belongs to a closed month. It can change only after the month is reopened.'],
            $error instanceof Conflict => [409, 'conflict', 'Somebody else was faster', $error->getMessage()],
            $error instanceof AuthenticationException => [401, 'signed-out', 'You are not signed in', 'Please sign in and try again.'],
            $error instanceof AuthorizationException, $code === 403 => [403, 'not-allowed', 'This is not yours to change', 'Your account does not have the right to do this.'],
            $error instanceof TokenMismatchException, $code === 419 => [419, 'stale-session', 'Your session has ended', 'Please sign in again.'],
            $error instanceof ModelNotFoundException, $code === 404 => [404, 'not-found', 'There is no such thing here', 'It may have been renamed or removed.'],
            $code === 429 => [429, 'too-many', 'Too many attempts', 'Please wait a minute and try again.'],
            $code < 500 => [$code, 'refused', 'The request was refused', 'The server did not understand this request.'],
            default => [500, 'broken', 'Something went wrong here', 'The server could not finish this. Nothing was saved.'],
        };
    }

    /** @return list<array{pointer: string, detail: string}> */
    private static function fields(ValidationException $error): array
    {
        $fields = [];
        foreach ($error->errors() as $field => $messages) {
            $fields[] = ['pointer' => '/'.str_replace('.', '/', $field), 'detail' => $messages[0]];
        }

        return $fields;
    }
}
