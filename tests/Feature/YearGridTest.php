<?php

declare(strict_types=1);

use App\Models\Reading;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

beforeEach(function () {
    CarbonImmutable::setTestNow('2026-09-08');
    $this->row = fn (string $code, string $layer = 'actual', string $unit = 'NET', string $columns = 'month'): array => collect(
        $this->getJson("/api/units/{$unit}/grid?period=2026-08&layer={$layer}&columns={$columns}")->assertOk()->json('rows')
    )->firstWhere('code', $code);
    $this->save = fn (array $cells, string $layer = 'actual') => $this->putJson("/api/units/NET/cells?period=2026-08&layer={$layer}&columns=month", ['layer' => $layer, 'cells' => $cells]);
    $this->cell = fn (string $kpi, string $period, string $typed, string $was = ''): array => ['measurement' => self::measured($kpi, 'NET')->id, 'period' => $period, 'typed' => $typed, 'was' => $was];
});

afterEach(fn () => CarbonImmutable::setTestNow());

it('lays the year out: figures, colours, notes, and why a cell cannot be typed in', function () {
    $this->as('owner');
    $leak = ($this->row)('LEAK');
    expect($leak['typed'][4])->toBe('64.9')->and($leak['statuses'][4])->toBe('r')->and($leak['marks'][4])->toBe('n')->and($leak['periods'])->toBeNull()
        ->and([$leak['locks'][2], $leak['locks'][3], $leak['locks'][5], $leak['locks'][6]])->toBe(['closed', '', '', 'future'])
        ->and(($this->row)('NRW')['locks'][3])->toBe('formula')
        ->and(($this->row)('BALANCE')['typed'][3])->toBe('amber')
        ->and(($this->row)('LEAK', 'target')['locks'][8])->toBe('planned')
        ->and(($this->row)('LEAK', 'prior')['typed'][4])->toBe('57.7')->and(($this->row)('LEAK', 'prior')['locks'][4])->toBe('other-year');

    $this->as('analyst');
    $audit = ($this->row)('AUDIT', 'actual', 'FIN');
    expect($audit['periods'][2])->toBe('FY2026-Q1')->and($audit['typed'][2])->toBe('11')->and($audit['locks'][1])->toBe('no-period')
        ->and(($this->row)('INLET', 'target')['typed'][8])->toBe("2.40 \u{2013} 3.10")
        ->and(($this->row)('WAITING', 'actual', 'CUS', 'week')['typed'])->toHaveCount(52)
        ->and(collect($this->getJson('/api/units/CUS/grid?period=2026-08&layer=actual&columns=month')->json('rows'))->firstWhere('code', 'WAITING'))->toBeNull();
});

it('shows what is worked out where no target is set, and one that is set instead of it', function () {
    $this->as('analyst');
    $row = fn (): array => ($this->row)('PUMP-COST', 'target');
    $pumped = fn (string $month): string => (string) (int) round(14.2 * (float) DB::scalar('SELECT actual FROM readings WHERE kpi_unit_id = ? AND period = ?', [self::measured('SYS-IN', 'NET')->id, "{$month}-01"]));
    expect($row())->toMatchArray(['targetFormula' => '14.2 * "SYS-IN"', 'typed' => array_fill(0, 12, '')])
        ->and($row()['following'])->toBe([...array_map($pumped, ['2026-04', '2026-05', '2026-06', '2026-07', '2026-08']), ...array_fill(0, 7, '')]);

    ($this->save)([($this->cell)('PUMP-COST', '2026-08', '120000')], 'target')->assertJsonPath('outcomes.0.outcome', 'saved');
    expect($row()['typed'][4])->toBe('120000')->and($row()['following'][4])->toBe('');
    // A change of the water that is pumped changes the colour, and the answer to it has the row.
    $again = ($this->save)([($this->cell)('SYS-IN', '2026-07', '7000', rtrim(($this->row)('SYS-IN')['typed'][3]))])->json('rows');
    expect(collect($again)->firstWhere('code', 'PUMP-COST')['statuses'][3])->toBe('r');
    ($this->save)([($this->cell)('PUMP-COST', '2026-08', '', '120000')], 'target')->assertJsonPath('outcomes.0.outcome', 'saved');
    expect($row()['following'][4])->toBe($pumped('2026-08'));
});

it('reads and judges a typed block without saving it', function () {
    $verdicts = $this->as('owner')->postJson('/api/units/NET/cells?period=2026-08', ['layer' => 'actual', 'cells' => [
        ($this->cell)('NIGHT', '2026-08', ' 1.930 '), ($this->cell)('NIGHT', '2026-07', '£1,9%', '1.70'), ($this->cell)('VALVES', '2026-08', '(7,000)'), ($this->cell)('LEAK', '2026-06', '1'), ($this->cell)('VALVES', '2026-07', ''),
    ]])->assertOk()->json();

    expect(array_column($verdicts, 'typed'))->toBe(['1.93', '£1,9%', '-7000', '1', ''])->and(array_column($verdicts, 'status'))->toBe(['r', '', 'r', '', ''])
        ->and($verdicts[1]['refused'])->toContain('is not a number')->and($verdicts[3]['refused'])->toBe('June 2026 is closed. It can change only after it is reopened.')
        ->and($verdicts[2]['question'])->toContain('Is that right?')
        ->and(Reading::query()->where('kpi_unit_id', self::measured('NIGHT', 'NET')->id)->where('period', '2026-08-01')->exists())->toBeFalse();
});

it('saves the good cells of a block, and tells of the others', function () {
    $answer = $this->as('owner');
    $outcomes = ($this->save)([
        ($this->cell)('NIGHT', '2026-08', '1.93'), ($this->cell)('VALVES', '2026-08', '6x0'), ($this->cell)('LEAK', '2026-08', '64.9', '64.9'),
        ($this->cell)('LEAK', '2026-07', '61', '60'), ($this->cell)('BALANCE', '2026-08', 'green'), ($this->cell)('LEAK', '2026-10', '61'), ($this->cell)('NRW', '2026-08', '1'),
    ])->assertOk();

    expect($outcomes->json('outcomes.*.outcome'))->toBe(['saved', 'refused', 'same', 'conflict', 'refused', 'refused', 'refused'])
        ->and($outcomes->json('outcomes.3.reason'))->toBe('Tom Fairley entered 62.4 in the meantime.')
        ->and($outcomes->json('outcomes.4.reason'))->toContain('needs its reason')
        ->and(collect($outcomes->json('rows'))->firstWhere('code', 'NIGHT')['statuses'][4])->toBe('r')
        ->and(($this->row)('NIGHT')['typed'][4])->toBe('1.93');
    ($this->save)([($this->cell)('NIGHT', '2026-08', '', '1.93')])->assertJsonPath('outcomes.0.outcome', 'saved');
    expect(($this->row)('NIGHT')['typed'][4])->toBe('');
});

it('takes last year as history where there is none, and targets from the analyst alone', function () {
    $this->as('owner');
    DB::table('period_states')->where('period', '2025-07-01')->delete();
    DB::table('readings')->where('kpi_unit_id', self::measured('NIGHT', 'NET')->id)->where('period', '2025-07-01')->delete();
    ($this->save)([($this->cell)('NIGHT', '2025-07', '1.7')])->assertJsonPath('outcomes.0.outcome', 'saved');
    ($this->save)([($this->cell)('LEAK', '2026-12', '55', '56.0')], 'target')->assertJsonPath('outcomes.0.outcome', 'refused');

    $this->as('analyst');
    ($this->save)([($this->cell)('LEAK', '2026-12', '55', '56.0'), ($this->cell)('INLET', '2026-12', '2.2 to 3', "2.40 \u{2013} 3.10"), ($this->cell)('LEAK', '2027-01', '', '56.0')], 'target')
        ->assertJsonPath('outcomes.*.outcome', ['saved', 'saved', 'saved']);
    expect(($this->row)('LEAK', 'target')['typed'][8])->toBe('55.0')->and(($this->row)('INLET', 'target')['typed'][8])->toBe("2.20 \u{2013} 3.00")->and(($this->row)('LEAK', 'target')['typed'][9])->toBe('');
});

it('marks a figure of a running month as provisional, wherever it is shown, until it is entered anew', function () {
    $this->as('owner');
    ($this->save)([($this->cell)('SYS-IN', '2026-09', '2100'), ($this->cell)('BILLED', '2026-09', '1700')])->assertJsonPath('outcomes.1.outcome', 'saved');
    $shown = fn (string $code): array => collect($this->getJson('/api/units/NET/scorecard?period=2026-09&span=month')->json('groups.*.rows.*'))->firstWhere('code', $code);

    expect(collect($this->getJson('/api/units/NET/grid?period=2026-09&layer=actual&columns=month')->json('rows'))->firstWhere('code', 'BILLED')['marks'][5])->toBe('p')
        ->and($shown('BILLED')['asOf'])->toBe('2026-09-08')->and($shown('NRW')['asOf'])->toBe('2026-09-08')->and($shown('LEAK')['asOf'])->toBeNull();

    CarbonImmutable::setTestNow('2026-10-02');
    ($this->save)([($this->cell)('SYS-IN', '2026-09', '8900', '2100'), ($this->cell)('BILLED', '2026-09', '7300', '1700')]);
    expect($shown('NRW')['asOf'])->toBeNull();
});

it('saves a colour with the reason that is given for it in the grid', function () {
    $this->as('owner');
    $cell = ($this->cell)('BALANCE', '2026-08', 'green');
    ($this->save)([$cell])->assertJsonPath('outcomes.0.outcome', 'refused');
    ($this->save)([[...$cell, 'reason' => 'Both meters agree.']])->assertJsonPath('outcomes.0.outcome', 'saved');
    expect(($this->row)('BALANCE')['marks'][4])->toBe('n');
});
