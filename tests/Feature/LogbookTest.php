<?php

declare(strict_types=1);

use App\Models\Reading;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Tests\World;

beforeEach(function () {
    CarbonImmutable::setTestNow('2026-09-08');
    $this->night = self::measured('NIGHT', 'NET');
    $this->at = "/api/measurements/{$this->night->id}";
});

afterEach(fn () => CarbonImmutable::setTestNow());

it('shows a data owner their own KPIs of the unit and below, and an executive none', function () {
    $rows = fn (string $account, string $unit): array => $this->as($account)->getJson("/api/units/{$unit}/logbook?period=2026-08")->assertOk()->json('rows');

    expect($rows('owner', 'NET'))->toHaveCount(84)
        ->and(array_unique(array_column($rows('owner', 'NET'), 'unit')))->toHaveCount(13)
        ->and($rows('owner', 'Z-FENWICK'))->toHaveCount(6)
        ->and($rows('executive', 'NET'))->toBe([]);
    $this->as('owner')->getJson('/api/units/WST/logbook?period=2026-08')->assertNotFound();
});

it('judges a figure while it is typed, and saves nothing', function (string $typed, string $status) {
    $this->as('owner')->postJson("{$this->at}/readings/2026-08/preview", ['typed' => $typed, 'version' => 0])
        ->assertOk()->assertJsonPath('status', $status);
    expect(Reading::query()->where('kpi_unit_id', $this->night->id)->where('period', '2026-08-01')->exists())->toBeFalse();
})->with([['1.75', 'green'], ['1.80', 'amber'], ['1.93', 'red'], ['', 'no-data']]);

it('saves a reading and answers with its judgement', function () {
    $this->as('owner')->putJson("{$this->at}/readings/2026-08", ['typed' => ' 1.930 ', 'version' => 0])->assertOk()
        ->assertJsonPath('typed', '1.93')->assertJsonPath('version', 1)->assertJsonPath('verdict.status', 'red')->assertJsonPath('verdict.wantsNote', true);

    $this->getJson('/api/units/NET/ribbon?period=2026-08')->assertJsonPath('open', 4);
    $this->putJson("{$this->at}/readings/2026-08", ['typed' => '', 'version' => 1])->assertOk()
        ->assertJsonPath('typed', '')->assertJsonPath('version', 2)->assertJsonPath('verdict.status', 'no-data');
});

it('refuses what is no figure, beside it, with the text', function (string $typed, string $period, string $words) {
    $answer = $this->as('owner')->putJson("{$this->at}/readings/{$period}", ['typed' => $typed, 'version' => 0])->assertStatus(422)
        ->assertJsonPath('errors.0.pointer', '/typed');
    expect($answer->json('errors.0.detail'))->toContain($words);
})->with([
    ['2,3 l', '2026-08', '2,3 l'],
    ['1.123456789', '2026-08', 'decimals'],
    ['1', '2026-10', 'October 2026 has not begun'],
]);

it('lets a month begin to be filled on its first day', function () {
    $this->as('owner')->putJson("{$this->at}/readings/2026-09", ['typed' => '1.8', 'version' => 0])->assertOk();
    $this->getJson('/api/units/NET/logbook?period=2026-10')->assertJsonPath('open', false);
});

it('never overwrites what somebody has not seen', function () {
    $this->as('owner')->putJson("{$this->at}/readings/2026-08", ['typed' => '1.7', 'version' => 0])->assertOk();
    $this->as('analyst')->putJson("{$this->at}/readings/2026-08", ['typed' => '1.9', 'version' => 0])->assertStatus(409)
        ->assertJsonPath('current', ['text' => '1.70', 'version' => 1, 'by' => 'Tom Fairley']);
    $this->putJson("{$this->at}/readings/2026-08", ['typed' => '1.9', 'version' => 1])->assertOk()->assertJsonPath('typed', '1.90');
});

it('keeps one note for a month, and refuses to overwrite it unseen', function () {
    $note = fn (string $text, int $version) => $this->putJson("{$this->at}/notes/2026-08", ['text' => $text, 'outlook' => '', 'doing' => '', 'version' => $version]);

    $this->as('owner');
    $version = $note('Meter swapped.', 0)->assertOk()->assertJsonPath('note.text', 'Meter swapped.')->assertJsonPath('note.author', 'Tom Fairley')->json('note.version');
    // An answer that was lost: the same again is no conflict with oneself.
    $note('Meter swapped.', 0)->assertOk()->assertJsonPath('note.version', $version);
    $note('Another.', 0)->assertStatus(409)->assertJsonPath('current.text', 'Meter swapped.');
    $note(str_repeat('x', 2001), $version)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/text');
    $note('  ', $version)->assertOk()->assertJsonPath('note', null);
    // One that is written anew is another note, which nobody has seen yet.
    $note('Meter moved.', 0)->assertOk();
    $note('Late.', $version)->assertStatus(409);
});

it('asks the database the same number of times, however many rows there are', function (string $path, int $most) {
    $count = function (string $unit) use ($path): int {
        DB::flushQueryLog();
        DB::enableQueryLog();
        $this->as('analyst')->getJson(str_replace('UNIT', $unit, $path))->assertOk();

        return count(DB::getQueryLog());
    };

    // A long transaction of another test would keep everything from being kept: it counts as begun before the last change.
    DB::table('assessment_marks')->delete();
    // What is not kept yet is judged in the first requests.
    $count('OST');
    $count('Z-FENWICK');
    expect($count('OST'))->toBeLessThanOrEqual($most)->and($count('Z-FENWICK'))->toBeLessThanOrEqual($most);
})->with([
    ['/api/units/UNIT/logbook?period=2026-08', 16],
    ['/api/units/UNIT/ribbon?period=2026-08', 14],
    ['/api/units/UNIT/scorecard?period=2026-08&span=rolling12', 13],
    ['/api/units/UNIT/grid?period=2026-08&layer=actual&columns=month', 16],
    ['/api/units/UNIT/closing?period=2026-08', 17],
]);

it('takes the parts of a figure, which add up to it', function () {
    $this->world()->being('analyst');
    $definition = $this->getJson('/api/kpis/FLOW?period=2026-08')->json();
    $this->putJson('/api/kpis/FLOW?period=2026-08', [...$definition, 'parts' => ['mains', 'hydrants']])->assertOk()->assertJsonPath('parts', ['mains', 'hydrants']);
    $at = '/api/measurements/'.World::id('FLOW', 'NORTH').'/readings/2026-07';
    $version = fn (): int => (int) DB::table('readings')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->where('period', '2026-07-01')->value('version');
    $kept = fn (): array => DB::table('reading_parts')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->orderBy('part')->pluck('actual', 'part')->map(fn (string $actual): float => (float) $actual)->all();

    $row = $this->putJson($at, ['typed' => '', 'parts' => ['mains' => '12', 'hydrants' => '5.25'], 'version' => $version()])->assertOk()->json();
    expect($row['typed'])->toBe('17.25')->and($row['parts'])->toBe([['part' => 'mains', 'typed' => '12.0'], ['part' => 'hydrants', 'typed' => '5.25']])->and($kept())->toBe(['hydrants' => 5.25, 'mains' => 12.0]);
    // Another distribution of the same sum is a change; who has not seen it is told, with what stands there.
    $this->putJson($at, ['typed' => '', 'parts' => ['mains' => '10', 'hydrants' => '7.25'], 'version' => $row['version']])->assertOk();
    $this->putJson($at, ['typed' => '', 'parts' => ['mains' => '11', 'hydrants' => '6'], 'version' => $row['version']])->assertStatus(409)->assertJsonPath('current.parts', ['mains' => '10.0', 'hydrants' => '7.25']);
    // An answer that was lost may be asked for again.
    $this->putJson($at, ['typed' => '', 'parts' => ['mains' => '10', 'hydrants' => '7.25'], 'version' => $row['version']])->assertOk();
    $this->putJson($at, ['typed' => '', 'parts' => ['mains' => 'ten', 'valves' => '1'], 'version' => $version()])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/parts/mains')->assertJsonPath('errors.1.pointer', '/parts/valves');
    // No other way makes a sum that its parts do not add up to, and no part that has figures is lost.
    $this->putJson($at, ['typed' => '18', 'version' => $version()])->assertStatus(422)->assertJsonPath('errors.0.detail', 'It is the sum of its parts: change those, on the month sheet.');
    $now = $this->getJson('/api/kpis/FLOW?period=2026-08')->json();
    $this->putJson('/api/kpis/FLOW?period=2026-08', [...$now, 'parts' => ['mains']])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/parts');

    $split = $this->getJson('/api/measurements/'.World::id('FLOW', 'NORTH').'/splits?period=2026-07&span=month')->assertOk()->json('0');
    expect(array_column($split['parts'], 'share', 'part'))->toBe(['mains' => '58.0', 'hydrants' => '42.0'])->and($split['adds'])->toBeTrue();
    $this->putJson($at, ['typed' => '', 'parts' => ['mains' => '', 'hydrants' => ''], 'version' => $version()])->assertOk()->assertJsonPath('typed', '');
    expect($kept())->toBe([]);
});
