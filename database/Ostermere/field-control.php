<?php

declare(strict_types=1);

/*
 * A stand-in for somebody else's service, for the demonstration alone: it gives the repair jobs of the latest months, page
 * after page, to whoever has its key. It can be told to misbehave: bin/stand-in slow, half, nonsense, away or well.
 */

use Database\Ostermere\Records;

require dirname(__DIR__, 2).'/vendor/autoload.php';

const PAGE = 500;
const MONTHS = '2026-06';

$mood = trim((string) @file_get_contents((string) getenv('KYBERNET_FIELD_MOOD')));
if (($_SERVER['HTTP_X_KEY'] ?? '') !== 'field-key') {
    http_response_code(401);
    echo 'Whose key is that?';

    return;
}
if ($mood === 'away') {
    http_response_code(503);

    return;
}
$set = Records::sets()['JOBS'];
$names = array_column(array_filter($set['fields'], fn (array $field): bool => isset($field['type'])), 'name');
$jobs = [];
foreach (($set['rows'])() as $row) {
    if (substr($row[3], 0, 7) >= MONTHS) {
        $jobs[] = array_map(fn (string $value): ?string => $value === '' ? null : $value, array_combine($names, $row));
    }
}
$page = max(1, (int) ($_GET['page'] ?? 1));
$etag = '"'.md5($mood.serialize($jobs)).'"';
if ($page === 1 && ($_SERVER['HTTP_IF_NONE_MATCH'] ?? '') === $etag) {
    http_response_code(304);

    return;
}
header("ETag: {$etag}");
header('Content-Type: application/json');
$part = array_slice($jobs, ($page - 1) * PAGE, PAGE);
if ($mood === 'nonsense') {
    echo '[{"job": "J-1", "called": "yesterday"}, {"what": ';

    return;
}
$text = $part === [] ? '' : (string) json_encode($part);
if ($mood === 'slow') {
    foreach (str_split($text, 4_000) as $piece) {
        echo $piece;
        flush();
        usleep(400_000);
    }

    return;
}
if ($mood === 'half') {
    header('Content-Length: '.strlen($text));
    echo substr($text, 0, intdiv(strlen($text), 2));

    return;
}
echo $text;
