<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Support\Formats;
use Illuminate\Http\Response;

/** The JSON Schemas of the open formats. */
final readonly class FormatController
{
    public function __invoke(string $format): Response
    {
        return new Response(Formats::schema($format), 200, ['Content-Type' => 'application/schema+json']);
    }
}
