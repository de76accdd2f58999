<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Support\Formats;
use Illuminate\Http\Response;

/** The JSON Schemas of the open formats, and the description of the API. */
final readonly class FormatController
{
    public function __invoke(string $format): Response
    {
        return new Response(Formats::schema($format), 200, ['Content-Type' => 'application/schema+json']);
    }

    public function api(): Response
    {
        return new Response((string) file_get_contents(base_path('docs/formats/openapi.json')), 200, ['Content-Type' => 'application/json']);
    }
}
