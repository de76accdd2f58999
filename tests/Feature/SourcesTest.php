<?php

declare(strict_types=1);

use App\Models\Kpi;
use App\Models\RecordLoad;
use App\Sources\CountJob;
use App\Sources\ForgetFiles;
use App\Sources\StageFile;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Tests\World;

/*
 * Record sets: made from a file, brought in, taken back, and counted. The records are few, so that every figure can be
 * worked out on paper.
 */

const JOBS = <<<'CSV'
    Job no;Zone;Kind;Reported;Repaired;Cost;Rang;Cancelled
    J-1;N1;burst;03/06/2026;05/06/2026;120.50;2026-06-03 23:30;no
    J-2;NORTH;leak;10/06/2026;20/06/2026;80;2026-06-10 10:00;no
    J-3;N1;burst;28/06/2026;02/07/2026;;2026-06-28 09:00;no
    J-4;Old north;leak;05/07/2026;06/07/2026;40;2026-07-05 08:00;no
    J-5;N1;meter;06/07/2026;30/07/2026;10;2026-07-06 08:00;yes
    J-6;SOUTH;burst;07/07/2026;08/07/2026;99.99;2026-07-07 08:00;no
    J-7;N1;burst;20/07/2026;;;2026-07-20 08:00;no
    CSV;

beforeEach(function () {
    Storage::fake('local');
    $this->world()->being('analyst');
    $this->sample = fn (string $content = JOBS, string $name = 'jobs.csv') => $this->postJson('/api/record-samples', ['file' => UploadedFile::fake()->createWithContent($name, $content)]);
    /** A set made from the jobs above, and brought in. */
    $this->jobs = function (array $more = []): array {
        $sample = ($this->sample)()->assertOk()->json();
        $page = $this->postJson('/api/record-sets', [
            'code' => 'JOBS', 'name' => 'Repair jobs', 'noun' => 'jobs', 'unit' => 'ORG', 'key' => 'job_no', 'unitField' => 'zone', 'coversFrom' => '2026-06-01', 'coversTo' => '2026-07-31', 'coversByLoads' => false,
            'mode' => 'key', 'owners' => [], 'upload' => $sample['upload'], 'file' => $sample['file'], 'version' => 0,
            'fields' => [...array_map(fn (array $field): array => [...$field, 'was' => null], $sample['fields']), ['name' => 'took', 'was' => null, 'type' => null, 'expression' => 'days(reported, repaired)', 'meaning' => '', 'sensitive' => false, 'column' => null, 'form' => '']],
            ...$more,
        ])->assertCreated()->json();
        $this->postJson("/api/record-loads/{$page['loads'][0]['id']}/application")->assertStatus(202);

        return $this->getJson('/api/record-sets/JOBS')->assertOk()->json();
    };
    $this->bring = function (string $content, array $more = []): array {
        $load = $this->postJson('/api/record-sets/JOBS/loads', ['file' => UploadedFile::fake()->createWithContent('more.csv', $content), ...$more])->assertCreated()->json('load');
        $this->postJson("/api/record-loads/{$load['id']}/application")->assertStatus(202);

        return $this->getJson("/api/record-loads/{$load['id']}")->assertOk()->json('load');
    };
    /** A KPI that is counted; what is not said is as for any. */
    $this->counts = function (array $counted, array $more = [], string $code = 'REPAIR'): void {
        $input = [
            ...$this->getJson('/api/kpis/FLOW?period=2026-08')->json(), 'code' => $code, 'name' => $code, 'kind' => 'records', 'counted' => ['records' => 'JOBS', 'datedBy' => 'repaired', 'unit' => 'zone', ...$counted], 'min' => '', 'max' => '',
            'units' => [['unit' => 'NORTH', 'weight' => 1, 'owner' => null, 'from' => null, 'to' => null, 'gathered' => false, 'rule' => null], ['unit' => 'N1', 'weight' => 1, 'owner' => null, 'from' => null, 'to' => null, 'gathered' => false, 'rule' => null]],
            'targets' => [], 'yearTargets' => [], 'version' => 0, ...$more,
        ];
        $this->postJson('/api/kpis?period=2026-08', $input)->assertCreated();
    };
});

it('understands a file: types, how dates are written, what tells records apart, what names units', function () {
    $sample = ($this->sample)()->assertOk()->json();

    expect(array_column($sample['fields'], 'type', 'name'))->toBe(['job_no' => 'text', 'zone' => 'text', 'kind' => 'text', 'reported' => 'date', 'repaired' => 'date', 'cost' => 'number', 'rang' => 'time', 'cancelled' => 'yesno'])
        ->and(array_column($sample['fields'], 'form', 'name')['reported'])->toBe('day-first')
        ->and($sample['key'])->toBe('job_no')->and($sample['unitField'])->toBe('zone')->and($sample['fields'][3]['examples'][0])->toBe('2026-06-03');
});

it('brings records in, tells what names no unit, maps it in one step, and takes a load back as a whole', function () {
    $page = ($this->jobs)();

    expect($page['records'])->toBe(7)->and($page['unknown'])->toBe([['name' => 'Old north', 'records' => 1]])
        ->and(array_intersect_key($page['loads'][0], ['state' => 1, 'added' => 1, 'changed' => 1, 'same' => 1, 'refused' => 1]))->toBe(['state' => 'applied', 'added' => 7, 'changed' => 0, 'same' => 0, 'refused' => 0]);
    $named = $this->putJson('/api/record-sets/JOBS/unit-names', ['names' => ['Old north' => 'NORTH']])->assertOk()->json();
    expect($named['unknown'])->toBe([])->and($named['unitNames'])->toBe(['Old north' => 'NORTH']);

    $table = 'records.r'.DB::table('record_sets')->where('code', 'JOBS')->value('id');
    $before = DB::table($table)->orderBy('c1')->get()->toJson();
    $load = ($this->bring)("Job no;Cost;Zone\nJ-1;120.5;N1\nJ-3;55.25;N1\nJ-9;7;SOUTH\nJ-9;8;SOUTH\nJ-10;x;N1\n;3;N1\n");
    expect(array_intersect_key($load, ['brought' => 1, 'added' => 1, 'changed' => 1, 'same' => 1, 'refused' => 1]))->toBe(['brought' => 6, 'added' => 1, 'changed' => 1, 'same' => 1, 'refused' => 3]);
    expect(array_column($this->getJson("/api/record-loads/{$load['id']}")->json('refusals'), 'reason', 'line'))->toBe([5 => 'It stands in line 4 already.', 6 => "'x' is not a number such as 1234.5.", 7 => 'It is missing, and records are told apart by it.']);
    expect(DB::table($table)->where('c1', 'J-3')->value('c6'))->toBe('55.25')->and(DB::table($table)->where('c1', 'J-3')->value('c3'))->toBe('burst');

    $this->deleteJson("/api/record-loads/{$load['id']}/application")->assertStatus(202);
    expect(DB::table($table)->orderBy('c1')->get()->toJson())->toBe($before)->and($this->getJson("/api/record-loads/{$load['id']}")->json('load.state'))->toBe('undone');
});

it('counts a KPI from the records of its unit and the units below, and over longer spans again', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(['take' => 'share', 'met' => [['of' => 'took', 'atMost' => '5']], 'where' => [['of' => 'kind', 'oneOf' => ['burst', 'leak']]]]);
    ($this->counts)(['take' => 'median', 'of' => 'took'], [], 'HALF');
    ($this->counts)(['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [], 'LEFT');

    $kept = fn (string $kpi, string $unit): array => DB::table('counted_figures')->where('kpi_unit_id', World::id($kpi, $unit))->where('span', 'period')->orderBy('period')->get(['period', 'records', 'met'])->map(fn ($row): array => array_values((array) $row))->all();
    expect($kept('REPAIR', 'NORTH'))->toBe([['2026-06-01', 2, 1], ['2026-07-01', 2, 2]])->and($kept('REPAIR', 'N1'))->toBe([['2026-06-01', 1, 1], ['2026-07-01', 1, 1]]);
    $page = fn (string $kpi, string $span): ?string => $this->getJson("/api/units/NORTH/kpis/{$kpi}?period=2026-07&span=month")->assertOk()->json("{$span}.actual.exact");
    // June 1 of 2, July 2 of 2: together 3 of 4, not the mean of 50 and 100. July's durations are 4, 1 and 24, June's 2 and 10.
    expect($page('REPAIR', 'month'))->toBe('100')->and($page('REPAIR', 'yearToDate'))->toBe('75')
        ->and($page('HALF', 'month'))->toBe('4')->and($page('HALF', 'yearToDate'))->toBe('4')->and($page('LEFT', 'month'))->toBe('1');
});

it('shows the very records behind a figure, their cases and parts, and what another goal would mean', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(
        ['take' => 'share', 'met' => [['of' => 'took', 'atMost' => '5']], 'where' => [['of' => 'kind', 'oneOf' => ['burst', 'leak']]]],
        ['polarity' => 'higher', 'rule' => ['from' => '2025-04', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '10', 'stretch' => '', 'periods' => null, 'pace' => 'whole'],
            'yearTargets' => ['NORTH' => '90'], 'splits' => [['code' => 'KIND', 'name' => 'by kind', 'of' => 'kind', 'shares' => ['burst' => '80', 'meter' => '20'], 'green' => '5', 'amber' => '10']]],
    );
    $at = '/api/measurements/'.World::id('REPAIR', 'NORTH');
    $page = $this->getJson("{$at}/records?period=2026-07&span=yearToDate&sort=took&down=1")->assertOk()->json();
    expect([$page['total'], $page['counted'], $page['met']])->toBe([4, 4, 3])->and(array_column($page['rows'], 0))->toBe(['J-2', 'J-3', 'J-1', 'J-4'])->and(array_map(fn (array $row): ?string => $row[count($row) - 1], $page['rows']))->toBe(['', 'met', 'met', 'met'])
        ->and($this->getJson("{$at}/records?period=2026-07&span=yearToDate&search=LEAK")->json('total'))->toBe(2)
        ->and($this->get("{$at}/records/file?period=2026-07&span=month&format=csv")->streamedContent())->toContain('J-3,4,N1,burst,2026-06-28,2026-07-02,,');

    $cases = $this->getJson("{$at}/cases?period=2026-07&span=yearToDate&by=kind&goal=3")->assertOk()->json();
    expect($cases['goal'])->toBe('5')->and(array_column($cases['rows'], 'values', 'name'))->toBe(['burst' => ['2', '4'], 'leak' => ['1', '10']])
        ->and([$cases['now']['met'], $cases['now']['cases'], $cases['now']['share'], $cases['now']['status']])->toBe([3, 4, '75.0', 'red'])
        ->and([$cases['tried']['met'], $cases['tried']['share'], $cases['tried']['status']])->toBe([2, '50.0', 'red']);

    $parts = $this->getJson("{$at}/splits?period=2026-07&span=yearToDate")->assertOk()->json('0.parts');
    expect(array_map(fn (array $part): array => [$part['part'], $part['actual']['exact'] ?? null, $part['share'], $part['target'], $part['status']], $parts))
        ->toBe([['burst', '100', '50.0', '80', 'red'], ['leak', '50', '50.0', null, 'not-judged'], ['meter', null, '0.0', '20', 'red']]);
    // June: J-1 burst, J-2 leak; July: J-3 burst, J-4 leak. Neither share moved.
    expect(array_column($this->getJson("{$at}/splits?period=2026-07&span=month")->json('0.parts'), 'moved', 'part'))->toBe(['burst' => '0.0', 'leak' => '0.0', 'meter' => '0.0']);
    $this->getJson('/api/measurements/'.World::id('FLOW', 'NORTH').'/records?period=2026-07&span=month')->assertNotFound();
});

it('shows what a sentence would give while it is said, and where it is not right yet', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    $preview = fn (array $counted) => $this->postJson('/api/record-preview', ['counted' => ['records' => 'JOBS', 'take' => 'share', 'datedBy' => 'repaired', 'unit' => 'zone', 'met' => [['of' => 'took', 'atMost' => '5']], ...$counted], 'kpi' => 'FLOW', 'unit' => 'NORTH', 'period' => '2026-07', 'frequency' => 'month', 'decimals' => 1]);
    $page = $preview(['where' => [['of' => 'kind', 'oneOf' => ['burst', 'leak']], ['of' => 'cancelled', 'is' => false]]])->assertOk()->json();

    expect(array_slice(array_map(fn (array $month): array => [$month['period'], $month['actual'], $month['records'], $month['stands']], $page['months']), -2))->toBe([['2026-06', '50.0', 2, '12.0'], ['2026-07', '100.0', 2, '13.0']])
        ->and([$page['leftOut'], $page['empty'], $page['known'], $page['names']])->toBe([[1, 0], 0, 4, 4])->and(array_column($page['rows'], 0))->toBe(['J-3', 'J-4']);
    $split = fn (array $splits): array => $this->postJson('/api/record-preview', ['counted' => ['records' => 'JOBS', 'take' => 'count', 'datedBy' => 'repaired', 'unit' => 'zone'], 'splits' => $splits, 'kpi' => 'FLOW', 'unit' => 'NORTH', 'period' => '2026-07', 'frequency' => 'month', 'decimals' => 1])->assertOk()->json('splits');
    // J-3 took 4 days, J-4 one, J-5 24; a band that is half said shows nothing yet.
    expect($split([['code' => 'TOOK', 'name' => 'by days', 'of' => 'took', 'bands' => [['upTo' => '5', 'name' => 'in time'], ['upTo' => null, 'name' => 'late']]]]))
        ->toBe([['code' => 'TOOK', 'parts' => [['part' => 'in time', 'records' => 2], ['part' => 'late', 'records' => 1]]]])
        ->and($split([['code' => 'TOOK', 'name' => 'by days', 'of' => 'nothing']]))->toBe([]);
    $preview(['met' => [['of' => 'took', 'atMost' => 'five']]])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/counted/met/0/atMost');
    $preview(['datedBy' => 'kind'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/counted/datedBy');
});

it('keeps what is closed, tells what came late, and takes it in when the month is reopened', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(['take' => 'count']);
    $this->travel(1)->minutes();
    $this->putJson('/api/units/ORG/closing', ['period' => '2026-06'])->assertOk();
    ($this->bring)("Job no;Zone;Kind;Reported;Repaired\nJ-20;N1;leak;2026-06-01;15/06/2026\nJ-21;N1;leak;01/07/2026;16/07/2026\n");
    $figures = fn (): array => DB::table('counted_figures')->where('kpi_unit_id', World::id('REPAIR', 'NORTH'))->where('span', 'period')->orderBy('period')->pluck('records', 'period')->all();
    $late = fn (): array => DB::table('late_figures')->where('kpi_unit_id', World::id('REPAIR', 'NORTH'))->pluck('records', 'period')->all();

    expect($figures())->toBe(['2026-06-01' => 2, '2026-07-01' => 4])->and($late())->toBe(['2026-06-01' => 3]);
    $told = $this->getJson('/api/units/NORTH/closing?period=2026-06')->assertOk()->json('late');
    expect(array_map(fn (array $line): array => [$line['code'], $line['unit'], $line['records'], $line['stands']['digits'], $line['would']['digits']], $told))->toBe([['REPAIR', 'North one', 1, '1.0', '2.0'], ['REPAIR', 'North', 1, '2.0', '3.0']]);
    $this->postJson('/api/units/ORG/reopening', ['period' => '2026-06', 'reason' => 'late jobs'])->assertOk();
    expect($figures())->toBe(['2026-06-01' => 3, '2026-07-01' => 4])->and($late())->toBe([]);
});

it('puts a figure over the counted one with its reason, and takes it back in one step', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(['take' => 'count']);
    $at = '/api/measurements/'.World::id('REPAIR', 'NORTH').'/readings/2026-07';
    $figure = fn (): ?string => $this->getJson('/api/units/NORTH/kpis/REPAIR?period=2026-07&span=month')->json('month.actual.exact');

    expect($figure())->toBe('3');
    $this->putJson($at, ['typed' => '5', 'version' => 0])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/note')->assertJsonPath('errors.0.detail', 'A figure over the counted one needs its reason.');
    $row = $this->putJson($at, ['typed' => '5', 'version' => 0, 'note' => ['text' => 'Two jobs on paper.', 'outlook' => '', 'doing' => '', 'version' => 0]])->assertOk()->json();
    expect($figure())->toBe('5')->and($row['counted']['exact'])->toBe('3')->and($row['lock'])->toBe('counted');
    $this->putJson($at, ['typed' => '', 'version' => $row['version']])->assertOk();
    expect($figure())->toBe('3');
    // Not by a way that does not say so.
    $this->putJson('/api/units/NORTH/cells?period=2026-07', ['layer' => 'readings', 'cells' => [['measurement' => World::id('REPAIR', 'NORTH'), 'period' => '2026-07', 'typed' => '9', 'was' => '3.0']]]);
    expect($figure())->toBe('3');
});

it('changes over from typed to counted from a month on, and back without losing figures', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    $flow = $this->getJson('/api/kpis/FLOW?period=2026-08')->json();
    $counted = [...$flow, 'kind' => 'records', 'counted' => ['records' => 'JOBS', 'take' => 'count', 'datedBy' => 'repaired', 'unit' => 'zone', 'from' => '2026-07']];
    $this->putJson('/api/kpis/FLOW?period=2026-08', $counted)->assertOk()->assertJsonPath('counted.from', '2026-07');
    $figure = fn (string $month): ?string => $this->getJson("/api/units/NORTH/kpis/FLOW?period={$month}&span=month")->json('month.actual.exact');

    // Typed up to June, counted from July on; the year to date is made of both.
    expect([$figure('2026-05'), $figure('2026-06'), $figure('2026-07')])->toBe(['11', '12', '3']);
    $now = $this->getJson('/api/kpis/FLOW?period=2026-08')->json();
    $this->putJson('/api/kpis/FLOW?period=2026-08', [...$now, 'kind' => 'entered', 'accumulation' => 'sum'])->assertOk();
    expect([$figure('2026-06'), $figure('2026-07')])->toBe(['12', '3'])->and(DB::table('counted_figures')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->exists())->toBeFalse();
});

it('counts again when the tree, a code or the calendar changes, and what is closed stays', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(['take' => 'count']);
    $figures = fn (): array => DB::table('counted_figures')->where('kpi_unit_id', World::id('REPAIR', 'NORTH'))->where('span', 'period')->orderBy('period')->pluck('records', 'period')->all();
    $this->travel(1)->minutes();
    $this->putJson('/api/units/ORG/closing', ['period' => '2026-06'])->assertOk();
    expect($figures())->toBe(['2026-06-01' => 2, '2026-07-01' => 3]);

    // J-3 and J-5 of July are N1's, which is no part of the North any more.
    DB::table('units')->where('code', 'N1')->update(['parent_id' => DB::table('units')->where('code', 'SOUTH')->value('id')]);
    app()->forgetScopedInstances();
    expect(DB::table('counted_kpis')->where('is_due', true)->count())->toBe(1);
    app()->call([new CountJob, 'handle']);
    expect($figures())->toBe(['2026-06-01' => 2, '2026-07-01' => 1])->and(DB::table('late_figures')->pluck('records', 'period')->all())->toHaveKey('2026-06-01')->and(DB::table('counted_kpis')->where('is_due', true)->exists())->toBeFalse();
});

it('forgets files that nobody needs, and takes a load back without its file', function () {
    $page = ($this->jobs)();
    $path = DB::table('record_loads')->where('id', $page['loads'][0]['id'])->value('path');
    expect(is_file($path))->toBeTrue();
    app(ForgetFiles::class)();
    expect(is_file($path))->toBeTrue();
    $this->travel(2)->days();
    app(ForgetFiles::class)();
    expect(is_file($path))->toBeFalse();
    $this->deleteJson("/api/record-loads/{$page['loads'][0]['id']}/application")->assertStatus(202);
    expect($this->getJson('/api/record-sets/JOBS')->json('records'))->toBe(0);
});

it('takes back the latest loads, and none of which it is not known any more what it replaced', function () {
    ($this->jobs)();
    $loads = [];
    foreach (range(1, 6) as $cost) {
        $this->travel(1)->minutes();
        $loads[] = ($this->bring)("Job no;Cost\nJ-1;{$cost}\n")['id'];
    }
    $cost = fn (): string => (string) (float) DB::table('records.r'.DB::table('record_sets')->where('code', 'JOBS')->value('id'))->where('c1', 'J-1')->value('c6');
    $back = fn (int $load) => $this->deleteJson("/api/record-loads/{$load}/application");

    // The first waits for those that came after it.
    $back($loads[4])->assertStatus(202);
    expect($cost())->toBe('6')->and($this->getJson("/api/record-loads/{$loads[4]}")->json('load.problem'))->toContain('take that one back first');
    foreach ([5, 4, 3, 2, 1] as $at) {
        $back($loads[$at])->assertStatus(202);
        expect($cost())->toBe((string) $at);
    }
    $back($loads[0])->assertStatus(202);
    expect($cost())->toBe('1')->and($this->getJson('/api/record-sets/JOBS')->json('records'))->toBe(7)->and(array_filter($this->getJson('/api/record-sets/JOBS')->json('loads'), fn (array $load): bool => $load['undoable']))->toBe([]);
});

it('leaves what another worker has staged alone, when its turn is over', function () {
    ($this->jobs)();
    $load = $this->postJson('/api/record-sets/JOBS/loads', ['file' => UploadedFile::fake()->createWithContent('more.csv', "Job no;Cost\nJ-1;5\n")])->assertCreated()->json('load.id');
    $late = RecordLoad::query()->findOrFail($load);
    DB::table('record_loads')->where('id', $load)->update(['state' => 'reading', 'turn' => $late->turn + 1]);
    $late->turn = 1;
    app(StageFile::class)($late);

    expect(DB::table('record_loads')->where('id', $load)->value('state'))->toBe('reading')->and(DB::scalar('SELECT to_regclass(?) IS NOT NULL', ["records.s{$load}"]))->toBeTrue();
});

it('lets nothing that came late into a longer span over a closed month, however many records there are', function () {
    ($this->jobs)(['unitNames' => ['Old north' => 'NORTH']]);
    ($this->counts)(['take' => 'median', 'of' => 'took'], [], 'HALF');
    $figure = fn (string $span): ?string => $this->getJson('/api/units/NORTH/kpis/HALF?period=2026-07&span=month')->json("{$span}.actual.exact");
    expect([$figure('month'), $figure('yearToDate')])->toBe(['4', '4']);
    $this->travel(1)->minutes();
    $this->putJson('/api/units/ORG/closing', ['period' => '2026-06'])->assertOk();
    // J-2 of June took 19 days, not 10: as many records as before. June stays 6, the median of 2 and 10, and July is 4.
    ($this->bring)("Job no;Reported\nJ-2;01/06/2026\n");

    expect($this->getJson('/api/units/NORTH/kpis/HALF?period=2026-06&span=month')->json('month.actual.exact'))->toBe('6')->and($figure('month'))->toBe('4')->and($figure('yearToDate'))->toBe('5');
});
