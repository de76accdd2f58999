<?php

declare(strict_types=1);

use App\Briefings\Printer;
use App\Briefings\PrinterFailed;
use App\Models\Briefing;
use Carbon\CarbonImmutable;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\World;

/** @return array<string, mixed> a piece as a page sends it */
function piece(string $kind, array $more = []): array
{
    return $more + ['id' => 'p1', 'kind' => $kind, 'width' => 12, 'title' => '', 'line' => '', 'kpis' => [], 'unit' => '', 'span' => '', 'of' => '', 'choices' => (object) [], 'parts' => null, 'text' => '', 'picture' => null];
}

/** A briefing of the small world with these pieces, each in a band of its own; its code. */
function briefing(mixed $test, array $pieces, string $unit = 'ORG'): string
{
    $code = $test->being('analyst')->postJson('/api/briefings', ['name' => 'Page', 'unit' => $unit, 'span' => 'month', 'beginning' => 'nothing', 'period' => '2026-07'])->assertCreated()->json('code');
    $test->putJson("/api/briefings/{$code}/draft", ['name' => 'Page', 'version' => 0, 'bands' => array_map(fn (array $piece): array => [$piece], $pieces)])->assertOk();

    return $code;
}

function publish(mixed $test, string $code, int $version = 1, string $period = '2026-07'): mixed
{
    return $test->being('analyst')->postJson("/api/briefings/{$code}/issues", ['period' => $period, 'version' => $version]);
}

/** @return array<string, mixed> what the one piece of a kind shows on the demonstration's page */
function shown(mixed $test, string $kind, array $more, string $page = 'network', string $period = '2026-08'): array
{
    return $test->as('analyst')->postJson("/api/briefings/{$page}/preview", ['period' => $period, 'bands' => [[piece($kind, $more)]]])->assertOk()->json('0');
}

it('shows every kind of piece', function (string $kind, array $more, Closure $expected) {
    $expected(shown($this, $kind, $more));
})->with([
    'a figure with where its year ends' => ['figure', ['kpis' => ['LEAK'], 'parts' => ['pace', 'since']], fn (array $piece) => expect($piece['rows'][0]['code'])->toBe('LEAK')->and($piece['since']['month'])->toBe('2026-07')->and($piece['since']['change']['difference']['digits'])->toBe('2.5')->and($piece['yearEnd']['elapsed'])->not->toBeNull()],
    'since a year before, on another span' => ['figure', ['kpis' => ['LEAK'], 'span' => 'yearToDate', 'choices' => ['since' => 'year'], 'parts' => ['since']], fn (array $piece) => expect($piece['since']['month'])->toBe('2025-08')->and($piece['span'])->toBe('yearToDate')],
    'courses of KPIs' => ['courses', ['kpis' => ['LEAK', 'BURSTS']], fn (array $piece) => expect(array_column($piece['rows'], 'code'))->toBe(['LEAK', 'BURSTS'])],
    'courses over units' => ['courses', ['kpis' => ['Z-LEAK'], 'choices' => ['over' => 'units']], fn (array $piece) => expect($piece['rows'])->toHaveCount(12)],
    'a scale' => ['scale', ['kpis' => ['REPAIR5']], fn (array $piece) => expect($piece['rows'][0]['zones'])->not->toBeNull()],
    'a line' => ['line', ['kpis' => ['LEAK']], fn (array $piece) => expect($piece['course']['history'])->not->toBe([])->and($piece['course']['projection'])->not->toBeNull()],
    'a table of what is not on course' => ['table', ['choices' => ['rows' => 'bad']], fn (array $piece) => expect(array_unique(array_column($piece['rows'], 'status')))->each->toBeIn(['red', 'amber'])],
    'a matrix' => ['matrix', ['choices' => ['crossing' => 'units-months']], fn (array $piece) => expect($piece['matrix']['columns'])->toHaveCount(12)->and($piece['matrix']['rows'])->toHaveCount(12)],
    'a comparison with ranks' => ['compare', ['kpis' => ['Z-LEAK'], 'choices' => ['graphic' => 'ranks']], fn (array $piece) => expect($piece['comparison']['units'])->toHaveCount(12)->and($piece['ranks']['lines'])->toHaveCount(12)],
    'a split' => ['split', ['kpis' => ['JOBS-OPEN'], 'of' => 'KIND'], fn (array $piece) => expect($piece['split']['code'])->toBe('KIND')->and($piece['offered'])->not->toBe([])],
    'a map with every zone' => ['map', ['kpis' => ['Z-LEAK']], fn (array $piece) => expect($piece['regions'])->toHaveCount(12)->and($piece['regions'][0]['shape']['type'])->toBeIn(['Polygon', 'MultiPolygon'])],
    'exceptions without addresses' => ['exceptions', ['choices' => ['count' => '3']], fn (array $piece) => expect($piece['exceptions'])->toHaveCount(3)->and($piece['total'])->toBeGreaterThan(3)->and(array_filter(array_column($piece['exceptions'], 'ownerEmail')))->toBe([])],
    'actions, the earliest due first' => ['actions', [], fn (array $piece) => expect(array_column($piece['actions'], 'due'))->toBe(collect($piece['actions'])->pluck('due')->sort()->values()->all())->and($piece['actions'])->not->toBe([])],
    'cases' => ['cases', ['kpis' => ['REPAIR-SHARE'], 'unit' => 'NET', 'of' => 'kind'], fn (array $piece) => expect($piece['cases']['rows'])->not->toBe([])],
    'drivers' => ['drivers', ['kpis' => ['LEAK'], 'choices' => ['depth' => '3']], fn (array $piece) => expect($piece['drivers'][0])->toMatchArray(['depth' => 1])],
    'figures in words' => ['commentary', ['text' => 'At {LEAK}, {LEAK to target}, ends at {LEAK year end}; {Z-LEAK in Z-FENWICK} and {NOTHING}.'], fn (array $piece) => expect(array_column($piece['text'], 'live'))->toBe([false, true, false, true, false, true, false, true, false, true, false])
        ->and($piece['text'][1]['figure']['digits'])->toBe('64.9')->and($piece['text'][3]['difference']['difference']['digits'])->toBe('8.9')->and($piece['text'][5]['figure'])->not->toBeNull()->and($piece['text'][7]['unit'])->toBe('Z-FENWICK')->and($piece['text'][9]['code'])->toBe('')],
]);

it('says why a piece shows nothing', function (string $kind, array $more, string $why) {
    expect(shown($this, $kind, $more)['problem'])->toContain($why);
})->with([
    'no KPI chosen' => ['figure', [], 'Choose a KPI'],
    'no courses chosen' => ['courses', [], 'Choose KPIs'],
    'a KPI that is not there' => ['line', ['kpis' => ['GONE']], 'GONE is not measured in Network'],
    'a unit that is not there' => ['table', ['unit' => 'GONE'], 'no unit GONE'],
    'cases of what is entered' => ['cases', ['kpis' => ['LEAK']], 'not counted from records'],
    'a split that there is not' => ['split', ['kpis' => ['JOBS-OPEN'], 'of' => 'GONE'], 'not split like this'],
    'a map of what is measured once' => ['map', ['kpis' => ['LEAK']], 'not measured in units below'],
]);

it('refuses what is no page, in the right place', function (array $bands, string $pointer) {
    $this->world();
    $code = briefing($this, []);
    $this->putJson("/api/briefings/{$code}/draft", ['name' => 'Page', 'version' => 1, 'bands' => $bands])->assertStatus(422)->assertJsonPath('errors.0.pointer', $pointer);
})->with([
    'five beside each other' => [[array_map(fn (int $at): array => piece('text', ['id' => "p{$at}", 'width' => 2]), range(1, 5))], '/bands/0'],
    'wider than the page' => [[[piece('text', ['width' => 8]), piece('text', ['id' => 'p2', 'width' => 5])]], '/bands/0'],
    'two of one identity' => [[[piece('text')], [piece('text')]], '/bands/0/0/id'],
    'a kind that there is not' => [[[piece('cake')]], '/bands/0/0/kind'],
    'two KPIs in a figure' => [[[piece('figure', ['kpis' => ['FLOW', 'FAR']])]], '/bands/0/0/kpis'],
    'a choice that there is not' => [[[piece('line', ['choices' => ['mode' => 'days']])]], '/bands/0/0/choices/mode'],
    'a part of something else' => [[[piece('line', ['parts' => ['needle']])]], '/bands/0/0/parts'],
    'a picture of nobody' => [[[piece('text', ['picture' => 99])]], '/bands/0/0/picture'],
    'pieces that are words' => [[['x']], '/bands/0/0'],
]);

it('keeps a draft as one goes; of two who write, the second is told', function () {
    $this->world();
    $code = briefing($this, [piece('figure', ['kpis' => ['FLOW']])]);
    $to = fn (string $title, int $version, string $who = 'analyst') => $this->being($who)->putJson("/api/briefings/{$code}/draft", ['name' => 'Page', 'version' => $version, 'bands' => [[piece('figure', ['kpis' => ['FLOW'], 'title' => $title])]]]);
    $to('One', 1)->assertOk()->assertJson(['version' => 2]);
    // The same once more: its answer was lost.
    $to('One', 1)->assertOk()->assertJson(['version' => 2]);
    $to('Other', 1)->assertStatus(409)->assertJsonPath('current.version', 2);
    expect(Briefing::query()->where('code', $code)->sole()->version)->toBe(2);
    $to('Two', 2, 'reader')->assertForbidden();
});

it('shows readers what was published, whatever is changed later, and says what has changed', function () {
    $this->world();
    $code = briefing($this, [piece('figure', ['kpis' => ['FLOW']]), piece('commentary', ['id' => 'p2', 'text' => 'Sales are {SALES in NORTH}.'])]);
    $page = fn (string $who = 'reader', string $more = '') => $this->being($who)->getJson("/api/briefings/{$code}?period=2026-07{$more}")->assertOk()->json();
    expect($page())->toMatchArray(['shows' => 'none', 'bands' => []]);
    publish($this, $code)->assertCreated()->assertJson(['number' => 1]);
    publish($this, $code)->assertStatus(409);
    expect($page())->toMatchArray(['shows' => 'issue', 'changed' => [], 'mine' => false])->and($page()['answers'][0]['rows'][0]['actual']['digits'])->toBe('13.0');

    $id = World::id('FLOW', 'NORTH');
    $this->being('analyst')->putJson("/api/measurements/{$id}/readings/2026-07", ['typed' => '9', 'version' => 1, 'note' => null])->assertOk();
    $after = $page();
    expect($after['answers'][0]['rows'][0]['actual']['digits'])->toBe('13.0')->and($after['changed'])->toHaveCount(1)
        ->and($after['changed'][0])->toMatchArray(['code' => 'FLOW', 'statusThen' => 'red', 'statusNow' => 'green'])->and($after['changed'][0]['now']['digits'])->toBe('9.0');
    // The draft is not what readers see; what follows today is told apart.
    $this->being('analyst')->putJson("/api/briefings/{$code}/draft", ['name' => 'Page', 'version' => 2, 'bands' => []])->assertOk();
    expect($page()['bands'])->toHaveCount(2)->and($page('reader', '&draft=1')['shows'])->toBe('issue')->and($page('analyst', '&draft=1')['bands'])->toBe([])
        ->and($page('reader', '&span=yearToDate'))->toMatchArray(['shows' => 'today'])->and($page('reader', '&unit=NORTH')['answers'][0]['rows'][0]['actual']['digits'])->toBe('9.0');
    publish($this, $code, 3)->assertCreated()->assertJson(['number' => 2]);
    expect($page()['bands'])->toBe([])->and($page('reader', '&issue=1')['bands'])->toHaveCount(2);
    // The trail names who published what and when, and holds nothing of what stands on it.
    expect($this->being('analyst')->getJson('/api/changes?subject=briefing')->assertOk()->getContent())->toContain('issue of a briefing')->not->toContain('SALES in NORTH')->not->toContain('kept by');
    expect(fn () => DB::transaction(fn () => DB::table('briefing_issues')->update(['answer' => '[]'])))->toThrow(Exception::class, 'stays as it is');
});

it('shows nobody through a page what they may not see', function () {
    $this->world();
    $code = briefing($this, [
        piece('figure', ['id' => 'p1', 'kpis' => ['FLOW'], 'unit' => 'NORTH']), piece('figure', ['id' => 'p2', 'kpis' => ['FAR'], 'unit' => 'SOUTH']),
        piece('commentary', ['id' => 'p3', 'text' => 'South is at {FAR in SOUTH}.']), piece('matrix', ['id' => 'p4', 'choices' => ['crossing' => 'units-months']]),
        piece('exceptions', ['id' => 'p5']),
    ]);
    publish($this, $code)->assertCreated();
    // The owner opens the organisation because their KPI is below it; of its figures they see only their own.
    $page = $this->being('owner')->getJson("/api/briefings/{$code}?period=2026-07")->assertOk()->json();
    expect(array_column($page['answers'], 'id'))->toBe(['p1'])->and($page['withheld'])->toBe(4)->and(array_merge(...$page['bands']))->toHaveCount(1)->and(json_encode($page))->not->toContain('FAR');
    expect(array_column($this->being('reader')->getJson("/api/briefings/{$code}?period=2026-07")->json('answers'), 'id'))->toHaveCount(5);
    // Only for the people named.
    $this->being('analyst')->putJson("/api/briefings/{$code}/arrangement", ['span' => 'month', 'audience' => 'people', 'readers' => [World::person('executive')->id], 'version' => 2])->assertOk();
    foreach (['executive' => 200, 'reader' => 404, 'owner' => 404, 'analyst' => 200] as $who => $status) {
        expect($this->being($who)->getJson("/api/briefings/{$code}?period=2026-07")->getStatusCode())->toBe($status, $who)
            ->and(in_array($code, array_column($this->getJson('/api/briefings')->json(), 'code'), true))->toBe($status === 200, $who);
    }
});

it('is read by a link without an account, and the link reaches nothing else', function () {
    $this->world();
    $code = briefing($this, [piece('courses', ['kpis' => ['FLOW', 'FAR'], 'title' => 'North one and South'])]);
    $link = fn (bool $masked, string $until = '2027-01-01') => $this->being('analyst')->postJson("/api/briefings/{$code}/links", ['name' => 'Regulator', 'until' => $until, 'masked' => $masked])->assertCreated()->json('secret');
    CarbonImmutable::setTestNow('2026-12-01 12:00:00');
    [$plain, $masked] = [$link(false), $link(true)];
    $open = function (string $secret) {
        auth()->forgetGuards();
        app()->forgetScopedInstances();

        return $this->withHeaders(['Authorization' => "Bearer {$secret}"])->getJson('/api/reading');
    };
    expect($open($plain)->getStatusCode())->toBe(404);
    publish($this, $code)->assertCreated();
    expect($open($plain)->assertOk()->json('pages.0.answers.0.rows.0.unit'))->toBe('NORTH')->and($open($plain)->headers->get('X-Robots-Tag'))->toContain('noindex')->and($open($plain)->headers->getCookies())->toBe([]);
    expect($open($masked)->assertOk()->getContent())->not->toContain('South')->not->toContain('North')->not->toContain('NORTH')->not->toContain('@world.example');
    // Nothing else opens with it.
    foreach (['/api/briefings', "/api/briefings/{$code}?period=2026-07", '/api/units/ORG/scorecard?period=2026-07&span=month', '/api/programs/kpis'] as $path) {
        auth()->forgetGuards();
        expect($this->withHeaders(['Authorization' => "Bearer {$plain}"])->getJson($path)->getStatusCode())->toBe(401, $path);
    }
    $lines = $this->being('analyst')->getJson("/api/briefings/{$code}/links")->json();
    expect($lines[1])->toMatchArray(['opened' => 3, 'state' => 'good']);
    $this->deleteJson("/api/briefings/{$code}/links/{$lines[0]['id']}")->assertNoContent();
    expect($open($masked)->getStatusCode())->toBe(404)->and($open('kbl_guess')->getStatusCode())->toBe(404);
    CarbonImmutable::setTestNow('2027-01-02 12:00:00');
    expect($open($plain)->getStatusCode())->toBe(404);
});

it('begins with what weighs most, and copies for another unit', function (string $beginning, int $least) {
    $code = $this->as('analyst')->postJson('/api/briefings', ['name' => 'Begun', 'unit' => 'NET', 'span' => 'month', 'beginning' => $beginning, 'period' => '2026-08'])->assertCreated()->json('code');
    $page = $this->getJson("/api/briefings/{$code}?period=2026-08&draft=1")->assertOk()->json();
    expect(count(array_merge(...$page['bands'], ...[[]])))->toBeGreaterThanOrEqual($least)->and(array_filter(array_column($page['answers'], 'problem')))->toBe([]);
    $copy = $this->postJson('/api/briefings', ['name' => 'Begun', 'unit' => 'CUS', 'span' => 'month', 'beginning' => 'nothing', 'period' => '2026-08', 'from' => $code])->assertCreated()->json('code');
    expect($copy)->not->toBe($code)->and($this->getJson("/api/briefings/{$copy}?period=2026-08&draft=1")->json('bands'))->toHaveCount(count($page['bands']));
})->with([['organisation', 8], ['department', 9], ['weekly', 6], ['one-kpi', 3], ['month-end', 4]]);

it('keeps a picture with the page, and with each issue', function () {
    $this->world();
    $code = briefing($this, []);
    $send = fn (string $bytes) => $this->being('analyst')->post("/api/briefings/{$code}/pictures", ['file' => UploadedFile::fake()->createWithContent('p.png', $bytes)], ['Accept' => 'application/json']);
    $send('no picture')->assertStatus(422)->assertJsonPath('errors.0.detail', 'Choose a PNG or a JPEG.');
    ob_start();
    imagepng(imagecreatetruecolor(30, 20));
    $png = (string) ob_get_clean();
    $id = $send($png)->assertCreated()->json('picture');
    expect($send($png)->json('picture'))->toBe($id);
    $this->putJson("/api/briefings/{$code}/draft", ['name' => 'Page', 'version' => 0, 'bands' => [[piece('text', ['picture' => $id])]]])->assertOk();
    publish($this, $code, 1)->assertCreated();
    DB::table('briefing_pictures')->delete();
    expect($this->being('reader')->getJson("/api/briefings/{$code}?period=2026-07")->json('answers.0.picture'))->toMatchArray(['width' => 30, 'height' => 20, 'source' => 'data:image/png;base64,'.base64_encode($png)]);
});

it('tells a week at a time of what has weeks', function () {
    $weeks = $this->as('analyst')->getJson('/api/units/CUS/weeks?period=2026-08')->assertOk()->json();
    expect(array_column($weeks, 'week'))->toBe(['2026-W32', '2026-W33', '2026-W34', '2026-W35'])->and($weeks[1]['reported'])->toBe(1)
        ->and($this->getJson('/api/units/CAP/weeks?period=2026-08')->json())->toBe([]);
    $of = fn (string $week) => collect($this->getJson("/api/units/CUS/scorecard?period=2026-08&span=month&week={$week}&group=none")->assertOk()->json('groups.0.rows'))->keyBy('code');
    $row = $of('2026-W33')['WAITING'];
    $reading = DB::table('readings')->where('kpi_unit_id', self::measured('WAITING', 'CUS')->id)->where('period', '2026-08-10')->value('actual');
    expect($row['week'])->toBe('2026-W33')->and((float) $row['actual']['exact'])->toBe((float) $reading)->and($row['wake'])->toHaveCount(13)->and($row['wake'][12]['period'])->toBe('2026-W33')->and($row['step'])->not->toBeNull()
        ->and($of('2026-W33')['CALLS30']['week'])->toBeNull();
    $kpi = $this->getJson('/api/units/CUS/kpis/WAITING?period=2026-08&span=month&week=2026-W33')->assertOk()->json();
    expect($kpi)->latest->toBe('2026-W33')->and($kpi['month']['actual']['exact'])->toBe($row['actual']['exact']);
    $page = $this->getJson('/api/briefings/monday-meeting?period=2026-08&week=2026-W33')->assertOk()->json();
    expect($page['shows'])->toBe('today')->and($page['answers'][0]['rows'][0]['week'])->toBe('2026-W33');
    $this->getJson('/api/units/CUS/scorecard?period=2026-08&span=month&week=2026-W99')->assertStatus(422);
});

it('drafts the text of the month from exceptions, notes and actions', function () {
    $text = $this->as('analyst')->getJson('/api/briefings/network/commentary?period=2026-08')->assertOk()->json('text');
    expect($text)->toStartWith('Leakage is off course at {LEAK} ({LEAK to target}), for 4 periods in a row: Two new bursts on the Fenwick trunk main')->toContain('Survey of the Fenwick trunk main')->toContain('{Z-LEAK in Z-FENWICK}');
});

it('asks the database as often for twelve figures as for one', function () {
    $count = function (int $figures): int {
        $kpis = ['LEAK', 'BURSTS', 'REPAIR5', 'RENEWED', 'PRESSURE', 'NIGHT', 'VALVES', 'SHUTDOWNS', 'CHLORINE', 'NRW', 'INLET', 'PUMP-COST'];
        $bands = array_map(fn (int $at): array => [piece('figure', ['id' => "p{$at}", 'kpis' => [$kpis[$at]]])], range(0, $figures - 1));
        $ask = fn () => $this->as('analyst')->postJson('/api/briefings/network/preview', ['period' => '2026-08', 'bands' => $bands])->assertOk();
        $ask();
        app()->forgetScopedInstances();
        DB::flushQueryLog();
        DB::enableQueryLog();
        $ask();

        return count(DB::getQueryLog());
    };
    expect($count(12))->toBe($count(1))->toBeLessThan(30);
});

it('prints with the browser of the server, and says so where there is none', function () {
    $printer = fn (string $browser): Printer => tap(app()->make(Printer::class), fn () => config(['kybernet.browser' => $browser]));
    expect(fn () => $printer('/nowhere')->print(['pages' => []], 'a4'))->toThrow(PrinterFailed::class, 'no browser');
    $fake = tempnam(sys_get_temp_dir(), 'print').'.sh';
    file_put_contents($fake, "#!/bin/sh\nfor word in \"\$@\"; do case \$word in --print-to-pdf=*) printf '%%PDF-1.4 /Type /Page /Type /Pages /Type /Page' >\"\${word#*=}\";; esac; done\n");
    chmod($fake, 0o755);
    $pdf = $printer($fake)->print(['pages' => []], 'a3');
    expect($pdf)->toStartWith('%PDF-')->and(Printer::pages($pdf))->toBe(2);
    file_put_contents($fake, "#!/bin/sh\nexit 1\n");
    expect(fn () => $printer($fake)->print(['pages' => []], 'a4'))->toThrow(PrinterFailed::class, 'could not be printed');
    $this->as('analyst')->getJson('/api/briefings/board/pdf?period=2026-08')->assertStatus(422)->assertJsonPath('errors.0.detail', fn (string $words): bool => str_contains($words, 'Your own browser can'));
    unlink($fake);
});
