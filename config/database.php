<?php

declare(strict_types=1);

return [
    'default' => 'pgsql',
    'connections' => [
        'pgsql' => [
            'driver' => 'pgsql',
            'host' => env('DB_HOST', '127.0.0.1'),
            'port' => env('DB_PORT', '5432'),
            'database' => env('DB_DATABASE', 'kybernet'),
            'username' => env('DB_USERNAME', 'kybernet'),
            // Secrets may stand in files that only the server reads.
            'password' => ($file = env('DB_PASSWORD_FILE')) === null ? env('DB_PASSWORD', '') : trim((string) file_get_contents((string) $file)),
            'charset' => 'utf8',
            'prefix' => '',
            'search_path' => 'public',
            'sslmode' => env('DB_SSLMODE', 'disable'),
            'timezone' => 'UTC',
            // Signing in to the database costs more than most requests; the few server processes keep their connection.
            // One that does not answer is told as away within two seconds.
            'options' => [PDO::ATTR_PERSISTENT => true, PDO::ATTR_TIMEOUT => (int) env('DB_TIMEOUT', 2)],
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
