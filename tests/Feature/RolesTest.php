<?php

declare(strict_types=1);

use App\Models\Unit;
use App\Models\User;
use App\Organisation\Rights;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Tests\World;

/*
 * Roles for a part of the tree, several for one person, and standing in. Who may do what on each route is in
 * RouteRightsTest; here is how parts and people add up.
 */

beforeEach(function () {
    $this->world();
    $this->grant = function (string $person, string ...$roles): User {
        $user = World::person($person);
        $user->grants()->delete();
        foreach ($roles as $held) {
            [$role, $unit] = explode(' ', $held);
            $user->grants()->create(['role' => $role, 'unit_id' => Unit::query()->where('code', $unit)->sole()->id]);
        }

        return $user->refresh();
    };
});

/** What somebody may do with a measurement: s sees it, l logs it, c calls its status, d defines and closes. */
function may(User $user, string $kpi, string $unit): string
{
    app()->forgetScopedInstances();
    $rights = app(Rights::class);
    $measurement = App\Models\Measurement::query()->findOrFail(World::id($kpi, $unit));
    [$place, $owner] = [$measurement->unit_id, $measurement->owner_id];

    return ($rights->maySee($user, $place, $owner) ? 's' : '').($rights->mayLog($user, $place, $owner) ? 'l' : '').($rights->mayCall($user, $place) ? 'c' : '').($rights->analyses($user, $place) ? 'd' : '');
}

it('lets a role reach as far down as its part of the tree, and no further', function (array $roles, array $expected) {
    $user = ($this->grant)('owner', ...$roles);
    foreach ($expected as $place => $rights) {
        [$kpi, $unit] = explode(' ', $place);
        expect(may($user, $kpi, $unit))->toBe($rights, "{$place} as ".implode(', ', $roles));
    }
})->with([
    'analyst of the whole' => [['analyst ORG'], ['FLOW NORTH' => 'slcd', 'SALES N1' => 'slcd', 'FAR SOUTH' => 'slcd']],
    'analyst of a department' => [['analyst NORTH'], ['FLOW NORTH' => 'slcd', 'SALES N1' => 'slcd', 'FAR SOUTH' => '']],
    'head of a zone' => [['head N1'], ['SALES NORTH' => '', 'SALES N1' => 'slc']],
    'owner, of what is theirs' => [['owner N1'], ['FLOW NORTH' => 'sl', 'SALES NORTH' => '', 'SALES N1' => '']],
    'reader of a department' => [['reader SOUTH'], ['FLOW NORTH' => '', 'FAR SOUTH' => 's']],
    'auditor' => [['auditor ORG'], ['FLOW NORTH' => 's', 'FAR SOUTH' => 's']],
    'administrator' => [['administrator ORG'], ['FLOW NORTH' => '', 'FAR SOUTH' => '']],
    'head here, reader there' => [['head N1', 'reader SOUTH'], ['SALES N1' => 'slc', 'FAR SOUTH' => 's', 'FLOW NORTH' => '']],
    'reader of the whole, owner besides' => [['reader ORG', 'owner NORTH'], ['FLOW NORTH' => 'sl', 'SALES NORTH' => 's']],
    'none' => [[], ['FLOW NORTH' => '', 'FAR SOUTH' => '']],
]);

it('opens the pages of each part, with the way to it where there are several', function (array $roles, array $codes) {
    ($this->grant)('owner', ...$roles);
    expect(array_column($this->being('owner')->getJson('/api/session')->assertOk()->json('units'), 'code'))->toEqualCanonicalizing($codes);
})->with([
    [['head NORTH'], ['NORTH', 'N1']], [['head N1', 'reader SOUTH'], ['ORG', 'NORTH', 'N1', 'SOUTH']], [['owner SOUTH'], ['ORG', 'NORTH', 'SOUTH']], [['administrator ORG'], []],
]);

it('lets an analyst of a part define what is measured there, and nothing beyond', function () {
    ($this->grant)('head', 'analyst NORTH');
    $kpi = fn (string $code, string $unit): array => [
        'code' => $code, 'name' => "Tests {$code}", 'purpose' => '', 'objective' => null, 'level' => 'operational', 'theme' => null, 'department' => $unit, 'source' => '', 'dueDay' => null, 'dataAvailable' => true, 'definitionAgreed' => true, 'noteRequired' => false,
        'kind' => 'entered', 'measure' => '', 'decimals' => 0, 'scaled' => false, 'frequency' => 'month', 'accumulation' => 'sum', 'formula' => '', 'targetFormula' => '', 'lowFormula' => '', 'highFormula' => '', 'min' => '', 'max' => '', 'materiality' => '',
        'gather' => '', 'weightedBy' => null, 'polarity' => 'higher', 'rule' => null, 'texts' => ['green' => '', 'amber' => '', 'red' => ''], 'drivers' => [], 'targets' => [], 'yearTargets' => [], 'version' => 0,
        'units' => [['unit' => $unit, 'owner' => null, 'weight' => '1', 'from' => '', 'to' => '', 'gathered' => false]],
    ];
    $this->being('head')->postJson('/api/kpis?period=2026-07', $kpi('MINE', 'NORTH'))->assertCreated()->assertJsonPath('editable', true);
    $this->postJson('/api/kpis?period=2026-07', $kpi('THEIRS', 'SOUTH'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/units/0/unit');
    $this->getJson('/api/kpis/FLOW?period=2026-07')->assertOk()->assertJsonPath('editable', true);
    $this->putJson('/api/kpis/FAR?period=2026-07', [])->assertNotFound();
    $this->putJson('/api/lists', [])->assertForbidden();
    $this->putJson('/api/units/NORTH/closing?period=2026-06')->assertOk();
    $this->putJson('/api/units/SOUTH/closing?period=2026-06')->assertNotFound();
    $this->postJson('/api/formula?period=2026-07', ['code' => 'X', 'formula' => 'FAR * 2', 'isTarget' => false, 'unit' => 'SOUTH', 'frequency' => 'month', 'accumulation' => 'recompute', 'decimals' => 0])->assertForbidden();
});

describe('standing in', function () {
    beforeEach(function () {
        $this->stand = fn (string $first, string $last) => DB::table('stand_ins')->insert(['user_id' => World::person('owner')->id, 'substitute_id' => World::person('reader')->id, 'first_day' => $first, 'last_day' => $last]);
    });

    it('counts from the first day to the last, by the clock of the organisation', function (string $now, string $rights) {
        DB::table('installation')->update(['time_zone' => 'Pacific/Auckland']);
        ($this->stand)('2026-08-20', '2026-08-21');
        CarbonImmutable::setTestNow($now);
        expect(may(World::person('reader'), 'FLOW', 'NORTH'))->toBe($rights);
    })->with([['2026-08-19 11:59:00', 's'], ['2026-08-19 12:00:00', 'sl'], ['2026-08-21 11:59:00', 'sl'], ['2026-08-21 12:00:00', 's']]);

    it('is named in the trail together with whom it was for; what is one’s own is not', function () {
        ($this->stand)('2026-08-01', '2026-08-31');
        $write = fn (string $person, string $typed) => $this->being($person)->putJson('/api/measurements/'.World::id('FLOW', 'NORTH').'/readings/2026-07', ['typed' => $typed, 'version' => DB::table('readings')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->where('period', '2026-07-01')->value('version'), 'note' => null])->assertOk();
        $write('reader', '14');
        app()->forgetScopedInstances();
        $this->being('analyst')->getJson('/api/changes?subject=reading')->assertOk()->assertJsonPath('changes.0.by', 'Reader')->assertJsonPath('changes.0.standingFor', 'Owner');
        $write('owner', '15');
        $this->being('analyst')->getJson('/api/changes?subject=reading')->assertJsonPath('changes.0.by', 'Owner')->assertJsonPath('changes.0.standingFor', null);
    });

    it('never hands on administering, nor what a blocked person might do', function () {
        DB::table('stand_ins')->insert(['user_id' => World::person('analyst')->id, 'substitute_id' => World::person('reader')->id, 'first_day' => '2026-08-01', 'last_day' => '2026-08-31']);
        $this->being('reader')->getJson('/api/people')->assertForbidden();
        expect(may(World::person('reader'), 'FAR', 'SOUTH'))->toBe('slcd');
        World::person('analyst')->update(['name' => 'Analyst']);
        DB::table('users')->where('email', 'analyst@world.example')->update(['blocked_at' => now()]);
        expect(may(World::person('reader'), 'FAR', 'SOUTH'))->toBe('s');
    });
});
