<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * Only text that the database can hold goes further: UTF-8 without zero bytes, in addresses and in what is sent.
 * Figures are nobody's but the reader's, so no answer is kept on the way.
 */
final class SoundRequest
{
    public function handle(Request $request, Closure $next): Response
    {
        if (! $this->isSound(rawurldecode($request->getPathInfo()))) {
            throw new NotFoundHttpException;
        }
        foreach ([...$request->query->all(), ...$request->request->all(), ...($request->isJson() ? $request->json()->all() : [])] as $field => $value) {
            if (! $this->areSound([$field => $value])) {
                throw ValidationException::withMessages([$this->isSound($field) ? $field : 'field' => 'This holds bytes that are no text.']);
            }
        }
        /** @var Response $response */
        $response = $next($request);
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
    }

    /** @param  array<array-key, mixed>  $values */
    private function areSound(array $values): bool
    {
        foreach ($values as $key => $value) {
            if (! $this->isSound((string) $key) || (is_string($value) && ! $this->isSound($value)) || (is_array($value) && ! $this->areSound($value))) {
                return false;
            }
        }

        return true;
    }

    private function isSound(string $text): bool
    {
        return ! str_contains($text, "\0") && mb_check_encoding($text, 'UTF-8');
    }
}
