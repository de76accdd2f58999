<?php

declare(strict_types=1);

return [
    // Without MAIL_HOST nobody is written to, and links are handed over by administrators.
    'default' => env('MAIL_MAILER', 'smtp'),
    'mailers' => [
        'smtp' => [
            'transport' => 'smtp',
            'scheme' => env('MAIL_SCHEME'),
            'host' => (string) env('MAIL_HOST', ''),
            'port' => (int) env('MAIL_PORT', 587),
            'username' => env('MAIL_USERNAME'),
            'password' => ($file = env('MAIL_PASSWORD_FILE')) === null ? env('MAIL_PASSWORD') : trim((string) file_get_contents((string) $file)),
            'timeout' => 10,
        ],
        'array' => ['transport' => 'array'],
    ],
    'from' => ['address' => (string) env('MAIL_FROM', 'kybernet@localhost'), 'name' => 'Kybernet'],
];
