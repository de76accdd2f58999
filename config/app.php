<?php

declare(strict_types=1);

return [
    'name' => 'Kybernet',
    'env' => env('APP_ENV', 'production'),
    'debug' => (bool) env('APP_DEBUG', false),
    'url' => env('APP_URL', 'http://127.0.0.1:8080'),
    // Assets are the page's own, whatever host and port it is read at.
    'asset_url' => '/',
    'timezone' => 'UTC',
    'locale' => 'en',
    'fallback_locale' => 'en',
    'cipher' => 'AES-256-CBC',
    'key' => ($file = env('APP_KEY_FILE')) === null ? env('APP_KEY') : trim((string) file_get_contents((string) $file)),
    'maintenance' => ['driver' => 'file'],
];
