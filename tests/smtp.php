<?php

declare(strict_types=1);

// A mail server that takes everything and writes down what it hears (RFC 5321, RFC 4954). It says its port first.
$server = stream_socket_server('tcp://127.0.0.1:0') ?: exit(1);
echo explode(':', (string) stream_socket_get_name($server, false))[1]."\n";
while ($line = @stream_socket_accept($server, 60)) {
    $say = fn (string $words) => fwrite($line, "{$words}\r\n");
    $say('220 ready');
    $isText = false;
    while (($heard = fgets($line)) !== false) {
        file_put_contents($argv[1], $heard, FILE_APPEND);
        $word = strtoupper(strtok(trim($heard), ' ') ?: '');
        if ($isText) {
            if (trim($heard) === '.') {
                $isText = false;
                $say('250 taken');
            }

            continue;
        }
        match ($word) {
            'EHLO' => $say("250-here\r\n250 AUTH PLAIN"),
            'AUTH' => $say('235 known'),
            'DATA' => $say('354 go on'),
            'QUIT' => $say('221 bye'),
            default => $say('250 so be it'),
        };
        $isText = $word === 'DATA';
    }
}
