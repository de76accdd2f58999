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
            'password' => env('DB_PASSWORD', ''),
            'charset' => 'utf8',
            'prefix' => '',
            'search_path' => 'public',
            'sslmode' => 'disable',
            'timezone' => 'UTC',
            // Signing in to the database costs more than most requests; the few server processes keep their connection.
            // One that does not answer is told as away within two seconds.
            'options' => [PDO::ATTR_PERSISTENT => true, PDO::ATTR_TIMEOUT => 2],
        ],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
