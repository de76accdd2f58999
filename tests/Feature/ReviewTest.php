<?php

declare(strict_types=1);

use App\Figures\DatabaseWorkbook;
use App\Models\Unit;
use App\Models\User;
use App\Review\ExceptionReader;
use App\Review\MatrixReader;
use App\Review\ScorecardReader;
use App\Review\Views\MatrixLine;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Workbook\AssessmentWriter;

/** @return array<string, mixed> the page of a KPI in Network */
function kpiPage(mixed $test, string $code, string $account = 'analyst', string $unit = 'NET'): array
{
    return $test->as($account)->getJson("/api/units/{$unit}/kpis/{$code}?period=2026-08&span=month")->assertOk()->json();
}

/** @return array<string, mixed>|null one line of the exceptions of Network */
function exception(mixed $test, string $code, string $account = 'analyst'): ?array
{
    return collect($test->as($account)->getJson('/api/units/NET/exceptions?period=2026-08&span=month')->assertOk()->json('items'))
        ->firstWhere(fn (array $item): bool => $item['code'] === $code && $item['unit'] === 'NET');
}

it('shows on every screen what the assess command says of the same workbook', function (string $month) {
    $analyst = User::query()->where('email', 'analyst@ostermere.example')->firstOrFail();
    $workbook = app(DatabaseWorkbook::class)->assessable();
    $chosen = Period::parse($month);
    $units = Unit::all()->whereNotIn('parent_id', Unit::query()->whereNull('parent_id')->pluck('id'));
    $root = $units->firstWhere('parent_id', null);
    $compared = 0;
    foreach (Span::cases() as $span) {
        $said = json_decode(implode('', [...(new AssessmentWriter($workbook, $chosen, $span))->json()]), true);
        $assessed = collect($said['assessments'])->keyBy(fn (array $each): string => "{$each['kpi']} {$each['unit']}");
        foreach ($units as $unit) {
            $page = app(ScorecardReader::class)->page($unit, $chosen, $span, $analyst);
            $rollUp = collect($said['rollUps'])->firstWhere(fn (array $each): bool => $each['unit'] === $unit->code && $each['span'] === $span->value);
            expect($page->status)->toBe($rollUp['status']);
            foreach ($page->groups as $group) {
                foreach ($group->rows as $row) {
                    $expected = $assessed["{$row->code} {$row->unit}"]['spans'][$span->value];
                    $isJudged = $assessed["{$row->code} {$row->unit}"]['trend'] === null && $row->measure === '';
                    expect([$row->status, $row->target?->exact, $isJudged ? null : $row->actual?->exact, $row->variance?->difference->exact, $row->change?->difference->exact, $row->expected, $row->reported])
                        ->toBe([$expected['status'], $expected['target'], $isJudged ? null : $expected['actual'], $expected['variance'], $expected['change'], $expected['expected'], $expected['reported']], "{$row->code} {$row->unit} {$month} {$span->value}");
                    $compared++;
                }
            }
        }
        $listed = array_map(fn ($item): array => ["{$item->code} {$item->unit}", $item->points, array_column($item->reasons, 'code')], app(ExceptionReader::class)->page($root, $chosen, $span, $analyst)->items);
        $expected = array_map(fn (array $each): array => ["{$each['kpi']} {$each['unit']}", (string) $each['points'], array_column($each['reasons'], 'code')], $said['exceptions']);
        expect($listed)->toBe($expected);

        $rolledUp = collect($said['rollUps'])->where('span', $span->value)->pluck('status', 'unit');
        $matrix = app(MatrixReader::class)->page($root, $chosen, $span, 'units-months', '', 12, $analyst);
        $latest = array_map(fn (MatrixLine $row, array $cells): array => [$row->key, $cells[11]->status], $matrix->rows, $matrix->cells);
        expect($matrix->columns[11]->status)->toBe($rolledUp[$root->code])->and($latest)->toBe(array_map(fn (array $row): array => [$row[0], $rolledUp[$row[0]]], $latest));
    }
    expect($compared)->toBe(4 * count($assessed));
})->with(['2026-04', '2026-07', '2026-08']);

it('lays out the page of a KPI', function () {
    $page = kpiPage($this, 'LEAK');
    $trend = DB::selectOne("SELECT regr_slope(actual, rank) AS slope FROM (SELECT actual, row_number() OVER (ORDER BY period) AS rank FROM readings WHERE kpi_unit_id = ? AND period BETWEEN '2025-09-01' AND '2026-08-01') AS year", [$page['id']]);

    expect($page['history'])->toHaveCount(43)->and($page['history'][35])->toMatchArray(['period' => '2026-08', 'status' => 'red'])
        ->and($page['gathered'])->toHaveCount(12)->and($page['gathered'][4]['actual']['exact'])->toBe($page['yearToDate']['actual']['exact'])
        ->and($page['gathered'][5])->actual->toBeNull()->target->not->toBeNull()->prior->not->toBeNull()
        ->and(collect($page['quarters'])->firstWhere('period', '2026-06')['actual']['exact'])->toBe('59')
        ->and($page['trend']['slope'])->toEqualWithDelta((float) $trend->slope, 1e-9)
        ->and($page['projection'])->toMatchArray(['method' => 'seasonal', 'left' => 7, 'end' => '2027-03'])->and($page['projection']['path'])->toHaveCount(7)
        ->and(array_column($page['drivers'], 'code'))->toBe(['BURSTS', 'REPAIR5', 'RENEWED', 'NIGHT'])
        ->and($page['actions'])->toHaveCount(2)->and($page['actions'][1])->toMatchArray(['state' => 'done', 'statusThen' => 'red', 'statusNow' => 'red'])
        ->and($page['notes'][0])->toMatchArray(['period' => '2026-08', 'author' => 'Tom Fairley']);
});

it('tells where a unit lies among those of its kind, as the database ranks them', function () {
    $page = kpiPage($this, 'Z-LEAK', unit: 'Z-QUARREL-HILL');
    $said = DB::selectOne("WITH peers AS (
            SELECT units.code, actual, target FROM readings JOIN kpi_unit ON kpi_unit.id = kpi_unit_id JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
            LEFT JOIN targets USING (kpi_unit_id, period) WHERE kpis.code = 'Z-LEAK' AND units.kind = 'zone' AND period = '2026-08-01'
        ) SELECT count(*) AS of, (SELECT rank FROM (SELECT code, rank() OVER (ORDER BY actual) AS rank FROM peers) AS ranked WHERE code = 'Z-QUARREL-HILL') AS rank,
            percentile_cont(ARRAY[0.25, 0.5, 0.75]) WITHIN GROUP (ORDER BY actual) AS quartiles, count(*) FILTER (WHERE actual <= target) AS meeting, count(target) AS aiming FROM peers");

    expect($page['standing'])->toMatchArray(['of' => $said->of, 'rank' => $said->rank, 'meeting' => $said->meeting, 'aiming' => $said->aiming])
        ->and(array_map(floatval(...), [$page['standing']['low'], $page['standing']['median'], $page['standing']['high']]))->toEqual(array_map(floatval(...), explode(',', trim($said->quartiles, '{}'))))
        ->and(array_column($page['places'], 'rank', 'unit')['Z-FENWICK'])->toBe(12)
        ->and(kpiPage($this, 'LEAK')['standing'])->toBeNull();
});

it('tells how closely a driver has moved with a KPI', function () {
    $page = kpiPage($this, 'LEAK');
    $together = DB::selectOne("SELECT corr(one.actual, other.actual) AS r FROM readings one JOIN readings other USING (period)
        WHERE one.kpi_unit_id = ? AND other.kpi_unit_id = ? AND period BETWEEN '2024-09-01' AND '2026-08-01'", [$page['id'], $page['drivers'][0]['id']]);

    expect($page['drivers'][0]['together'])->toEqualWithDelta((float) $together->r, 1e-9);
});

it('has a page for every kind and frequency, and says where there is none', function (string $code, array $expected) {
    expect(kpiPage($this, $code, unit: 'NET'))->toMatchArray($expected);
})->with([
    'a formula' => ['NRW', ['kind' => 'formula', 'accumulation' => 'recompute']],
    'judged' => ['BALANCE', ['kind' => 'judged', 'trend' => null, 'projection' => null]],
    'a band' => ['INLET', ['polarity' => 'band']],
    'gathered' => ['Z-COLOUR', ['accumulation' => 'sum']],
]);

it('shows a KPI only to those who see it', function () {
    $this->as('head')->getJson('/api/units/WST/kpis/FLOODING?period=2026-08&span=month')->assertNotFound();
    $this->as('owner')->getJson('/api/units/OST/kpis/CSAT?period=2026-08&span=month')->assertNotFound();
    $this->as('analyst')->getJson('/api/units/WST/kpis/LEAK?period=2026-08&span=month')->assertNotFound();
});

it('agrees actions, follows them up, and keeps them in the trail', function () {
    $id = $this->measuredId('BURSTS');
    $input = ['what' => 'Slower valves', 'who' => 'Mains crew', 'due' => '2026-10-01', 'state' => 'open', 'outcome' => '', 'version' => 0];
    $this->as('executive')->postJson("/api/measurements/{$id}/actions/2026-08", $input)->assertForbidden();
    CarbonImmutable::setTestNow('2026-09-10');
    $this->as('head')->postJson("/api/measurements/{$id}/actions/2026-08", $input)->assertCreated();
    // The answer was lost: sent again, it is the same action.
    $this->postJson("/api/measurements/{$id}/actions/2026-08", $input)->assertCreated();
    $this->postJson("/api/measurements/{$id}/actions/2026-08", [...$input, 'due' => '2026-09-09'])->assertUnprocessable()->assertJsonPath('errors.0.pointer', '/due');
    // No day, and no number that looks for one: refused as words are.
    $this->postJson("/api/measurements/{$id}/actions/2026-08", [...$input, 'due' => 1e300])->assertUnprocessable()->assertJsonPath('errors.0.pointer', '/due');
    CarbonImmutable::setTestNow();
    expect(kpiPage($this, 'BURSTS', 'head')['actions'])->toHaveCount(1);
    $action = kpiPage($this, 'BURSTS', 'head')['actions'][0];
    expect($action)->toMatchArray(['what' => 'Slower valves', 'overdue' => true, 'mine' => true, 'version' => 1])
        ->and(exception($this, 'BURSTS')['actions'])->toHaveCount(1);

    $this->as('head')->putJson("/api/actions/{$action['id']}", [...$input, 'state' => 'dropped', 'version' => 1])->assertUnprocessable()->assertJsonPath('errors.0.detail', 'Say why it is dropped.');
    $this->putJson("/api/actions/{$action['id']}", [...$input, 'state' => 'done', 'outcome' => 'Fitted', 'version' => 1])->assertNoContent();
    $this->putJson("/api/actions/{$action['id']}", [...$input, 'version' => 1])->assertConflict();
    expect(exception($this, 'BURSTS')['actions'])->toBe([]);
    $this->as('analyst')->getJson('/api/changes?subject=action')->assertJsonPath('changes.0.code', 'BURSTS')->assertJsonPath('changes.0.by', 'Ruth Sandell');
});

it('counts the same as missing, and as lacking a reason, on every screen', function (string $unit, string $month) {
    $this->as('analyst');
    $get = fn (string $page): array => $this->getJson("/api/units/{$unit}/{$page}period={$month}&span=month")->assertOk()->json();
    $closing = $get('closing?');
    $sheet = collect($get('logbook?')['rows']);
    $ribbon = collect($get('ribbon?')['months'])->firstWhere('period', $month);
    $missing = count($closing['missing']);

    expect($get('scorecard?')['missing'])->toBe($missing)->and($ribbon['expected'] - $ribbon['reported'])->toBe($missing)
        ->and($sheet->filter(fn (array $row): bool => ! in_array($row['lock'], ['formula', 'gathered', 'counted'], true) && $row['typed'] === '')->count())->toBe($missing)
        ->and($sheet->filter(fn (array $row): bool => $row['typed'] !== '' && $row['verdict']['wantsNote'] && ($row['note']['text'] ?? '') === '')->count())->toBe(count($closing['unexplained']));
})->with(['OST', 'NET', 'CUS', 'Z-FENWICK'])->with(['2026-06', '2026-08', '2026-09']);

it('counts overdue actions on a scorecard as the exceptions list them', function (string $account, string $unit) {
    $query = "/api/units/{$unit}/%s?period=2026-08&span=month";
    $overdue = $this->as($account)->getJson(sprintf($query, 'exceptions'))->assertOk()->json('overdue');

    expect($overdue)->not->toBe([])
        ->and($this->getJson(sprintf($query, 'scorecard'))->assertOk()->json('overdue'))->toBe(count($overdue));
})->with([['executive', 'OST'], ['head', 'NET'], ['owner', 'NET'], ['analyst', 'Z-FENWICK']]);

it('refuses an action that says too little', function (array $change, string $pointer) {
    $this->as('analyst')->postJson('/api/measurements/'.$this->measuredId('LEAK').'/actions/2026-08', [
        'what' => 'Dig', 'who' => 'Crew', 'due' => now()->addMonth()->toDateString(), 'state' => 'open', 'outcome' => '', 'version' => 0, ...$change,
    ])->assertUnprocessable()->assertJsonPath('errors.0.pointer', $pointer);
})->with([
    [['what' => ' '], '/what'], [['who' => ''], '/who'], [['due' => 'soon'], '/due'], [['due' => '1066-10-14'], '/due'], [['state' => 'perhaps'], '/state'],
]);

it('takes a call over a computed status until the figure changes', function () {
    $id = $this->measuredId('BURSTS');
    $url = "/api/measurements/{$id}/call?period=2026-08&span=month";
    $this->as('owner')->putJson($url, ['status' => 'green', 'reason' => 'mine'])->assertForbidden();
    $this->as('head')->putJson($url, ['status' => 'green', 'reason' => ''])->assertUnprocessable();
    $this->putJson($url, ['status' => 'green', 'reason' => 'Counted twice'])->assertNoContent();
    expect(kpiPage($this, 'BURSTS')['month'])->toMatchArray(['status' => 'green', 'computed' => 'amber', 'call' => 'Counted twice'])
        ->and(exception($this, 'BURSTS'))->toBeNull();

    $this->as('owner')->putJson("/api/measurements/{$id}/readings/2026-08", ['typed' => '58', 'version' => 1])->assertOk();
    expect(kpiPage($this, 'BURSTS')['month'])->toMatchArray(['status' => 'amber', 'call' => null]);

    $this->as('head')->putJson($url, ['status' => 'red', 'reason' => 'Too many'])->assertNoContent();
    $this->putJson($url, ['status' => 'none', 'reason' => ''])->assertNoContent();
    expect(kpiPage($this, 'BURSTS')['month']['call'])->toBeNull();
});

it('refuses a call where there is nothing to call', function (string $code, string $month, string $words) {
    $this->as('analyst')->putJson('/api/measurements/'.$this->measuredId($code)."/call?period={$month}&span=month", ['status' => 'green', 'reason' => 'because'])
        ->assertUnprocessable()->assertJsonPath('errors.0.detail', $words);
})->with([
    'closed' => ['LEAK', '2026-05', 'May 2026 is closed. It can be called only after it is reopened.'],
    'no figure' => ['NIGHT', '2026-08', 'Without a figure there is nothing to call.'],
    'a person judged' => ['BALANCE', '2026-07', 'The colour of this KPI is a person’s already: change it in the logbook.'],
]);

it('hides what was seen until another reason comes', function () {
    $leak = exception($this, 'LEAK', 'head');
    $codes = array_column($leak['reasons'], 'code');
    $this->putJson("/api/measurements/{$leak['id']}/seen", ['period' => '2026-08', 'reasons' => $codes])->assertNoContent();
    expect(exception($this, 'LEAK', 'head')['seen'])->toBeTrue()->and(exception($this, 'LEAK', 'analyst')['seen'])->toBeFalse();

    DB::table('notes')->where(['kpi_unit_id' => $leak['id'], 'period' => '2026-08-01'])->delete();
    expect(exception($this, 'LEAK', 'head'))->seen->toBeFalse()->reasons->toHaveCount(count($codes) + 1);
    $this->putJson("/api/measurements/{$leak['id']}/seen", ['period' => '2026-08', 'reasons' => []])->assertNoContent();
});

it('names who is late, and by which day', function () {
    expect(exception($this, 'NIGHT'))->toMatchArray(['dueDay' => '2026-09-08', 'ownerEmail' => 'owner@ostermere.example', 'status' => 'no-data']);
});

it('crosses units, KPIs and months to the same statuses', function () {
    $matrix = fn (string $unit, string $query): array => $this->as('analyst')->getJson("/api/units/{$unit}/matrix?period=2026-08&span=month&{$query}")->assertOk()->json();
    $at = function (array $page, string $row, string $column): ?array {
        return $page['cells'][array_search($row, array_column($page['rows'], 'key'), true)][array_search($column, array_column($page['columns'], 'key'), true)];
    };
    $cells = [
        $at($matrix('NET', 'crossing=units-kpis'), 'Z-FENWICK', 'Z-LEAK'),
        $at($matrix('NET', 'crossing=units-months&kpi=Z-LEAK'), 'Z-FENWICK', '2026-08'),
        $at($matrix('Z-FENWICK', 'crossing=kpis-months'), 'Z-LEAK', '2026-08'),
    ];
    expect($cells[0])->toMatchArray(['status' => 'red', 'period' => '2026-08'])->and($cells[1])->toBe($cells[0])->and($cells[2])->toBe($cells[0])
        ->and($matrix('NET', 'crossing=units-months&months=36'))->columns->toHaveCount(36)->rows->toHaveCount(12)
        ->and(array_column($matrix('OST', 'crossing=units-kpis')['rows'], 'key'))->toBe(['TRT', 'NET', 'WST', 'CAP']);
    foreach ($matrix('OST', 'crossing=units-months')['cells'] as $row) {
        expect($row)->toHaveCount(12);
    }
    $this->as('head')->getJson('/api/units/OST/matrix?period=2026-08&span=month&crossing=units-months')->assertNotFound();
    $this->as('analyst')->getJson('/api/units/NET/matrix?period=2026-08&span=month&crossing=sideways')->assertUnprocessable();
});

it('weighs each KPI of a matrix as its unit does', function () {
    $page = fn (): array => $this->as('analyst')->getJson('/api/units/NET/matrix?period=2026-08&span=month&crossing=units-kpis')->assertOk()->json();
    $column = fn (array $page): string => $page['columns'][array_search('Z-LEAK', array_column($page['columns'], 'key'), true)]['status'];
    $statuses = array_filter(array_map(fn (array $row): ?array => $row[array_search('Z-LEAK', array_column($page()['columns'], 'key'), true)], $page()['cells']));
    $red = array_column(array_filter($statuses, fn (array $cell): bool => $cell['status'] === 'red'), 'id');
    expect($column($page()))->not->toBe('red')->and($red)->not->toBe([]);

    DB::table('kpi_unit')->whereIn('id', $red)->update(['weight' => 1000]);
    app()->forgetScopedInstances();
    expect($column($page()))->toBe('red')->and($page()['status'])->toBe('red');
});

it('rolls the months up to the same, kept or judged now', function () {
    $page = fn (): array => $this->as('analyst')->getJson('/api/units/OST/matrix?period=2026-08&span=rolling12&crossing=units-months')->assertOk()->json();
    $ribbon = fn (): array => $this->getJson('/api/units/OST/ribbon?period=2026-08')->assertOk()->json();
    DB::table('assessed_months')->delete();
    $judged = [$page(), $ribbon()];
    expect([$page(), $ribbon()])->toBe($judged);

    DB::table('assessed_months')->where('month', '2026-05-01')->whereRaw('kpi_unit_id % 3 = 0')->delete();
    expect([$page(), $ribbon()])->toBe($judged);
});

it('hands reviews out as tables with exact figures', function (string $address, string $first, array $row) {
    $file = $this->as('head')->get("/api/units/NET/{$address}&period=2026-08&span=month&format=csv")->assertOk()->streamedContent();
    $lines = array_map(fn (string $line): array => str_getcsv($line, escape: ''), explode("\r\n", trim(substr($file, 3))));
    expect($lines[0][0])->toBe($first)->and(array_slice($lines[1], 0, count($row)))->toBe($row);
    expect($this->get("/api/units/NET/{$address}&period=2026-08&span=month&format=xlsx")->streamedContent())->toStartWith('PK');
})->with([
    ['scorecard/file?group=', 'group', ['Leakage and mains', 'Network', 'LEAK', 'Leakage', 'Ml/d', 'red', 'red', '64.9', '56', '57.7', '8.9']],
    ['exceptions/file?x=', 'rank', ['1', 'Network', 'LEAK', 'Leakage', 'red', '64.9', '150']],
    ['matrix/file?crossing=units-kpis', '', ['Fenwick', 'red', 'red', 'red', 'amber', 'red', 'amber', 'red']],
]);

it('gives the assessment of everything only to those who see everything', function () {
    $address = '/api/units/NET/scorecard/file?period=2026-08&span=month&format=json';
    $this->as('head')->getJson($address)->assertForbidden();
    $file = json_decode($this->as('executive')->get($address)->assertOk()->streamedContent(), true);
    expect($file)->toMatchArray(['format' => 'kybernet-assessment', 'period' => '2026-08'])->and($file['assessments'])->toHaveCount(DB::table('kpi_unit')->count());
});

it('finds notes and actions by their words, among what is theirs', function () {
    $found = fn (string $account, string $words): array => $this->as($account)->getJson('/api/texts?words='.urlencode($words))->assertOk()->json('*.kind');
    expect($found('head', 'fenwick trunk'))->toContain('action', 'note')->and($found('head', 'apology'))->toBe([])->and($found('analyst', 'apology'))->toContain('action');
    $this->getJson('/api/texts?words=100%25_')->assertOk()->assertExactJson([]);
});

it('needs a handful of queries, whatever the size', function (string $address, int $most) {
    $this->as('analyst')->getJson($address)->assertOk();
    app()->forgetScopedInstances();
    DB::flushQueryLog();
    DB::enableQueryLog();
    $this->getJson($address)->assertOk();
    expect(count(DB::getQueryLog()))->toBeLessThanOrEqual($most);
})->with([
    ['/api/units/OST/scorecard?period=2026-08&span=yearToDate', 14],
    ['/api/units/OST/exceptions?period=2026-08&span=yearToDate', 20],
    ['/api/units/NET/matrix?period=2026-08&span=month&crossing=units-kpis', 12],
    ['/api/units/NET/kpis/LEAK?period=2026-08&span=month', 20],
]);

it('shows the note of a week that begins later in its month', function () {
    $waiting = self::measured('WAITING', 'CUS');
    $latest = DB::table('readings')->where('kpi_unit_id', $waiting->id)->where('period', '<=', '2026-08-24')->max('period');
    DB::table('readings')->where('kpi_unit_id', $waiting->id)->where('period', $latest)->update(['actual' => 99999]);
    DB::table('notes')->upsert([['kpi_unit_id' => $waiting->id, 'period' => $latest, 'text' => 'Phones were down.', 'version' => 1]], ['kpi_unit_id', 'period'], ['text']);

    $item = collect($this->as('analyst')->getJson('/api/units/CUS/exceptions?period=2026-08&span=month')->assertOk()->json('items'))->firstWhere('code', 'WAITING');
    expect($item['note']['text'])->toBe('Phones were down.')->and($item['latest'])->toStartWith('2026-W');
});

it('tries other limits and targets on the page of a KPI, for whoever sees it, and keeps nothing', function () {
    $try = fn (string $as, string $asked, string $kpi = 'LEAK') => $this->as($as)->getJson("/api/units/NET/kpis/{$kpi}/what-if?period=2026-08{$asked}");
    $colours = fn (array $answer): array => array_column($answer['replay']['periods'], 'asTyped');

    $same = $try('owner', '')->assertOk()->json();
    expect($colours($same))->toBe(array_column($same['replay']['periods'], 'asIs'))->and($same['targets'])->toBe([])
        ->and($same)->toMatchArray(['reference' => 'target', 'measure' => 'percent', 'polarity' => 'lower', 'moved' => '', 'same' => '', 'own' => false]);

    $looser = $try('executive', '&amber=8')->assertOk()->json();
    expect($looser['now']['amber'])->toBe('5')->and($looser['tried']['amber'])->toBe('8')->and($looser['replay']['words'])->toBe('2 months would change, all from off course to drifting.');
    // A link says in which setting its figures are written, and is read by people with another one.
    $this->as('analyst')->patchJson('/api/session', ['locale' => 'de-DE'])->assertOk();
    expect($try('analyst', '&amber=7.5&as=en-GB')->json('tried.amber'))->toBe('7,5')->and($try('analyst', '&amber=7,5')->json('tried.amber'))->toBe('7,5');
    $this->patchJson('/api/session', ['locale' => 'en-GB'])->assertOk();

    // 56.0 moved by 10 % is 61.6, and 64.9 is 5.36 % over it.
    $moved = $try('owner', '&moved=10')->assertOk()->json();
    expect($moved['replay']['periods'][23])->toMatchArray(['target' => '61.6', 'asTyped' => 'red'])->and($moved['targets']['2026-08'])->toBe('61.6')->and($moved['targets'])->toHaveCount(12)
        ->and($try('owner', '&same=65')->json('replay.periods.23'))->toMatchArray(['target' => '65', 'asIs' => 'red', 'asTyped' => 'green'])
        ->and($try('analyst', '&moved=5', 'PUMP-COST')->json('replay.asTyped.green'))->toBe(24)
        ->and($try('analyst', '&same=2.6%20to%203', 'INLET')->json('same'))->toBe("2.60 \u{2013} 3.00");

    foreach (['&amber=-1' => '/amber', '&green=five' => '/green', '&moved=101' => '/moved', '&same=x' => '/same', '&periods=0' => '/periods', '&periods=3' => '/periods', '&as=xx' => '/as'] as $asked => $field) {
        $try('owner', $asked)->assertStatus(422)->assertJsonPath('errors.0.pointer', $field);
    }
    $try('owner', '', 'SYS-IN')->assertStatus(422)->assertJsonPath('errors.0.detail', 'Nothing judges Water into the network in August 2026, so there is nothing to try.');
    $try('owner', '', 'FLOODING')->assertNotFound();
});
