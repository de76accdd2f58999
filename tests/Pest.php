<?php

declare(strict_types=1);

use Tests\TestCase;

// Each of the processes that run beside each other has a database of its own.
$process = getenv('TEST_TOKEN');
if (is_string($process) && $process !== '') {
    $database = "kybernet_feature_{$process}";
    putenv("DB_DATABASE={$database}");
    $_ENV['DB_DATABASE'] = $_SERVER['DB_DATABASE'] = $database;
}

uses(TestCase::class)->in('Feature');
