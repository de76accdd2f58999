<?php

declare(strict_types=1);

use Symfony\Component\Process\Process;

/** @return array{int, string, string} exit code, standard output and standard error of bin/kybernet assess, run in an empty folder */
function assessFile(?string $workbook, string ...$options): array
{
    $folder = sys_get_temp_dir().'/kybernet-'.bin2hex(random_bytes(6));
    mkdir($folder);
    if ($workbook !== null) {
        file_put_contents("{$folder}/book.json", $workbook);
    }
    // Neither this test's settings nor a database are to be found.
    $clean = array_fill_keys(['APP_ENV', 'APP_KEY', 'DB_HOST', 'DB_PORT', 'DB_DATABASE', 'DB_PASSWORD', 'KYBERNET_HOME', 'APP_CONFIG_CACHE', 'APP_SERVICES_CACHE', 'APP_PACKAGES_CACHE', 'APP_ROUTES_CACHE', 'APP_EVENTS_CACHE'], false);
    $process = new Process([base_path('bin/kybernet'), 'assess', 'book.json', ...$options], $folder, $clean);
    $process->run();
    array_map(unlink(...), glob("{$folder}/*") ?: []);
    rmdir($folder);

    return [(int) $process->getExitCode(), $process->getOutput(), $process->getErrorOutput()];
}

function example(): string
{
    return (string) file_get_contents(base_path('core/tests/Fixtures/everything.json'));
}

it('assesses a workbook without a database and prints nothing else', function () {
    [$exit, $output, $errors] = assessFile(example(), '--period=2026-08');
    $assessment = json_decode($output, true);

    expect([$exit, $errors])->toBe([0, ''])
        ->and($assessment)->toHaveKeys(['format', 'version', 'period', 'assessments', 'rollUps', 'exceptions', 'goodNews'])
        ->and(array_keys($assessment['assessments'][0]['spans']))->toBe(['month', 'quarter', 'yearToDate', 'rolling12'])
        ->and($assessment['rollUps'])->toHaveCount(4 * 4)
        ->and(assessFile(example(), '--period=2026-08')[1])->toBe($output);
});

it('looks for exceptions on the chosen span', function () {
    $month = json_decode(assessFile(example(), '--period=2026-08')[1], true);
    $year = json_decode(assessFile(example(), '--period=2026-08', '--span=yearToDate')[1], true);

    expect($year['assessments'])->toBe($month['assessments'])->and($year['exceptions'])->not->toBe($month['exceptions']);
});

it('counts KPIs from the records of a workbook, with their parts where they are asked for', function () {
    $book = json_encode([
        'format' => 'kybernet-workbook', 'version' => 1, 'calendar' => ['yearStartMonth' => 4, 'timeZone' => 'Europe/London'], 'units' => [['code' => 'ORG', 'name' => 'Whole']],
        'recordSets' => [['code' => 'JOBS', 'name' => 'Jobs', 'key' => 'id', 'fields' => [['name' => 'id', 'type' => 'text'], ['name' => 'kind', 'type' => 'text'], ['name' => 'done', 'type' => 'time']], 'rows' => [['1', 'burst', '2026-08-31T22:30:00Z'], ['2', 'leak', '2026-08-31T23:30:00Z'], ['3', 'leak', '2026-08-02T08:00:00+01:00']]]],
        'kpis' => [['code' => 'JOB', 'name' => 'Jobs', 'kind' => 'records', 'polarity' => 'none', 'units' => [['unit' => 'ORG']], 'counted' => ['records' => 'JOBS', 'take' => 'count', 'datedBy' => 'done'], 'splits' => [['code' => 'KIND', 'name' => 'by kind', 'of' => 'kind']]]],
    ], JSON_THROW_ON_ERROR);
    [$exit, $output, $errors] = assessFile($book, '--period=2026-08', '--splits');
    expect([$exit, $errors])->toBe([0, '']);
    $assessment = json_decode($output, true)['assessments'][0];
    expect($assessment['spans']['month']['actual'])->toBe('2')->and(array_column($assessment['splits'][0]['spans']['month'], 'share', 'part'))->toBe(['burst' => '50', 'leak' => '50'])
        ->and(json_decode(assessFile($book, '--period=2026-08')[1], true)['assessments'][0])->not->toHaveKey('splits');
});

it('prints a table', function () {
    [$exit, $output] = assessFile(example(), '--period=2026-08', '--format=csv', '--span=quarter');
    $rows = array_map(fn (string $line): array => str_getcsv($line, escape: ''), explode("\r\n", trim($output)));

    expect($exit)->toBe(0)->and($rows)->toHaveCount(16)->and($rows[0][0])->toBe('kpi')->and(array_unique(array_column(array_slice($rows, 1), 2)))->toBe(['quarter']);
});

it('says on standard error what is wrong, and prints nothing', function (?string $workbook, array $options, int $code, string $error) {
    [$exit, $output, $errors] = assessFile($workbook, ...$options);

    expect([$exit, $output])->toBe([$code, ''])->and($errors)->toContain($error);
})->with([
    'a bad workbook' => [fn (): string => str_replace('"actual":"9.5"', '"actual":"9,5"', example()), ['--period=2026-08'], 2, "/readings/3/actual malformed \"9,5\" does not have the form that is needed here.\n"],
    'no JSON' => ["{\n\"format\":", ['--period=2026-08'], 2, '/ not-json line 2: '],
    'no file' => [null, ['--period=2026-08'], 2, '/ unreadable '],
    'no month' => [fn (): string => example(), [], 1, '--period: the month to assess is missing'],
    'a wrong month' => [fn (): string => example(), ['--period=2026-13'], 1, '--period: There is no month 13'],
    'a wrong span' => [fn (): string => example(), ['--period=2026-08', '--span=week'], 1, "--span: 'week'"],
    'a wrong format' => [fn (): string => example(), ['--period=2026-08', '--format=xml'], 1, "--format: 'xml'"],
]);
