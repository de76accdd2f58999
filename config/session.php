<?php

declare(strict_types=1);

return [
    'driver' => env('SESSION_DRIVER', 'kept'),
    'lifetime' => 600,
    'expire_on_close' => false,
    'encrypt' => false,
    // In the database: any node may answer, and people see where they are signed in.
    'table' => 'sessions',
    'lottery' => [2, 100],
    'cookie' => 'kybernet',
    'path' => '/',
    'domain' => null,
    // A cookie for https only would lock everybody out of a plain http address on loopback.
    'secure' => str_starts_with((string) env('APP_URL', 'http://'), 'https://'),
    'http_only' => true,
    'same_site' => 'lax',
];
