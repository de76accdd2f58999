<?php

declare(strict_types=1);

return [
    'driver' => env('SESSION_DRIVER', 'whole-files'),
    'lifetime' => 600,
    'expire_on_close' => false,
    'encrypt' => false,
    'files' => storage_path('framework/sessions'),
    'lottery' => [2, 100],
    'cookie' => 'kybernet',
    'path' => '/',
    'domain' => null,
    // A cookie for https only would lock everybody out of a plain http address on loopback.
    'secure' => str_starts_with((string) env('APP_URL', 'http://'), 'https://'),
    'http_only' => true,
    'same_site' => 'lax',
];
