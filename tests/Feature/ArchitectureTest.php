<?php

declare(strict_types=1);

use Illuminate\Support\Str;
use Symfony\Component\Finder\Finder;

/** Rooms that others stand on, and what each of them may know. */
const GROUND = [
    'Support' => [],
    'Models' => [],
    'Records' => ['Support'],
    'Tables' => ['Models', 'Support'],
    'Organisation' => ['Models', 'Support', 'Tables'],
    'Figures' => ['Models', 'Organisation', 'Records', 'Support'],
    'Views' => ['Figures'],
    'Kept' => ['Figures', 'Support', 'Views'],
    'Http' => ['Figures', 'Models', 'Support', 'Tables'],
];

/** Every other folder is a capability: it may know the ground, and no other capability. */
const CAPABILITIES = ['Briefings', 'Compare', 'Exchange', 'Import', 'Logbook', 'People', 'Register', 'Review', 'Settings', 'Sources', 'Trail'];

/** A briefing is made of what the screens show that it tells of. */
const MADE_OF = ['Briefings' => ['Compare', 'Review', 'Sources']];

/** What starts everything may know everything. */
const ROOF = ['Console', 'Providers'];

/** @return array<string, array{string, list<string>}> the room of each file of `app/`, and the classes that it names */
function rooms(): array
{
    $rooms = [];
    foreach (Finder::create()->files()->in(app_path())->name('*.php') as $file) {
        preg_match_all('/(?:^use |\\\\)((?:App|Illuminate|Symfony)\\\\[\w\\\\]+)/m', $file->getContents(), $names);
        $rooms[$file->getRelativePathname()] = [Str::before($file->getRelativePathname(), '/'), $names[1]];
    }

    return $rooms;
}

it('has a rule for every room', function () {
    expect(array_values(array_unique(array_column(rooms(), 0))))->toEqualCanonicalizing([...array_keys(GROUND), ...CAPABILITIES, ...ROOF]);
});

it('lets no room know more than it may', function () {
    $strangers = [];
    foreach (rooms() as $file => [$room, $names]) {
        $may = [$room, ...(GROUND[$room] ?? array_keys(GROUND)), ...(MADE_OF[$room] ?? [])];
        foreach (in_array($room, ROOF, true) ? [] : $names as $name) {
            if (str_starts_with($name, 'App\\') && ! in_array(explode('\\', $name)[1], $may, true)) {
                $strangers[] = "{$file} knows {$name}";
            }
        }
    }

    expect($strangers)->toBe([]);
});

it('leaves HTTP at the edge: controllers, requests, what all of them share', function () {
    // AddressFetcher asks others by HTTP; it knows nothing of who asks us.
    $edge = fn (string $file): bool => preg_match('/(Controller|Request)\.php$|^(Http|Providers|Console)\/|^People\/KnownDevice|^Sources\/AddressFetcher/', $file) === 1;
    $leaks = [];
    foreach (rooms() as $file => [, $names]) {
        foreach ($edge($file) ? [] : $names as $name) {
            if (preg_match('/^(Illuminate\\\\(Http|Foundation\\\\Http|Routing|Session|Cookie)|Symfony\\\\Component\\\\Http\w+|App\\\\Http)\\\\/', $name) === 1) {
                $leaks[] = "{$file} knows {$name}";
            }
        }
    }

    expect($leaks)->toBe([]);
});

it('hands answers out as values that nobody can change', function () {
    $loose = [];
    foreach (Finder::create()->files()->in(app_path())->path('/(^|\/)Views\//')->name('*.php') as $file) {
        if (preg_match('/^(?:final readonly class|enum|final class StatusSchema)/m', $file->getContents()) !== 1) {
            $loose[] = $file->getRelativePathname();
        }
    }

    expect($loose)->toBe([]);
});

// A whole workbook, which puts itself in the place of everything, and the benches are beside this.
it('has one writer for each kind of row', function (string $table, array $writers) {
    $found = [];
    foreach (Finder::create()->files()->in(app_path())->name('*.php')->notPath('Console')->notName('ImportWorkbook.php') as $file) {
        if (preg_match("/(?:INSERT INTO|UPDATE|DELETE FROM) {$table}\\b|table\\('{$table}'\\)[^;]*->(?:insert|insertOrIgnore|update|upsert|delete|updateOrInsert)\\(/", $file->getContents()) === 1) {
            $found[] = $file->getFilenameWithoutExtension();
        }
    }

    expect($found)->toEqualCanonicalizing($writers);
})->with([
    // Handing in moves the state of readings and no figure; deleting a KPI takes blank ones with it.
    'readings' => ['readings', ['FigureWriter', 'SubmitMonth', 'DeleteKpi']],
    'targets' => ['targets', ['FigureWriter']],
    'targets of years' => ['year_targets', ['FigureWriter']],
    'notes' => ['notes', ['FigureWriter']],
    'calls' => ['calls', ['CallStatus']],
    'closings' => ['period_states', ['ClosePeriod']],
    'marks of what was seen' => ['seen_marks', ['SeenMarks']],
    'counted figures' => ['counted_figures', ['CountedWriter']],
    'records that came late' => ['late_figures', ['CountedWriter']],
    'kept months' => ['assessed_months', ['AssessmentStore']],
    'kept spans' => ['assessed_spans', ['AssessmentStore']],
]);

it('keeps queries out of controllers and requests', function () {
    $queries = [];
    foreach (Finder::create()->files()->in(app_path())->name('/(Controller|Request)\.php$/') as $file) {
        if (preg_match('/Connection \$|DB::|->statement\(|->selectOne\(/', $file->getContents()) === 1) {
            $queries[] = $file->getRelativePathname();
        }
    }

    expect($queries)->toBe([]);
});
