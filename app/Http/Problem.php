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
use Illuminate\Support\Facades\Context;
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
        new OA\Property(property: 'type', description: 'leads to what it means', type: 'string', example: '/problems/invalid'),
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
                new OA\Property(property: 'parts', description: 'of a reading that is the sum of some, by name', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
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
        $type = self::type($error);
        $status = $type === ProblemType::Refused && $error instanceof HttpExceptionInterface ? $error->getStatusCode() : $type->status();

        return new JsonResponse([
            'type' => $type->address(),
            'title' => $type->title(),
            'status' => $status,
            'detail' => match (true) {
                $error instanceof Conflict => $error->getMessage(),
                $type === ProblemType::Broken => $type->detail().' Whoever runs Kybernet finds it in the log under '.self::number().'.',
                self::isUnkeepable($error) => 'Nothing was saved: a value of the request cannot be kept.',
                default => $type->detail(),
            },
            'errors' => $error instanceof ValidationException ? self::fields($error) : [],
            'current' => $error instanceof Conflict ? $error->current : null,
        ], $status, [
            'Content-Type' => 'application/problem+json',
            'Cache-Control' => 'no-store, private',
            ...($type === ProblemType::Away ? ['Retry-After' => '2'] : []),
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

    /** Of the request, as its lines in the log have it. */
    private static function number(): string
    {
        $number = Context::get('request');

        return is_string($number) ? $number : 'no number';
    }

    private static function type(Throwable $error): ProblemType
    {
        $code = $error instanceof HttpExceptionInterface ? $error->getStatusCode() : 500;

        return match (true) {
            self::isAway($error) => ProblemType::Away,
            $error instanceof ValidationException, self::isUnkeepable($error) => ProblemType::Invalid,
            $error instanceof QueryException && $error->getCode() === self::CLOSED => ProblemType::Closed,
            $error instanceof Conflict => ProblemType::Conflict,
            $error instanceof AuthenticationException => ProblemType::SignedOut,
            $error instanceof SecondFactorMissing => ProblemType::SecondFactor,
            $error instanceof AuthorizationException, $code === 403 => ProblemType::NotAllowed,
            $error instanceof TokenMismatchException, $code === 419 => ProblemType::StaleSession,
            $error instanceof ModelNotFoundException, $code === 404 => ProblemType::NotFound,
            $code === 429 => ProblemType::TooMany,
            $code < 500 => ProblemType::Refused,
            default => ProblemType::Broken,
        };
    }

    /** Values that no column can hold passed the checks at the edge: they are still nobody's mistake but the request's. */
    private static function isUnkeepable(Throwable $error): bool
    {
        return $error instanceof QueryException && str_starts_with((string) ($error->errorInfo[0] ?? ''), '22');
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
