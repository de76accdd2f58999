<?php

declare(strict_types=1);

use App\Http\Problem;
use App\Http\ProblemType;
use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\RuleSet;
use App\Support\Conflict;
use Database\Ostermere\Loader;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpKernel\Exception\MethodNotAllowedHttpException;

/** The status of every measurement judged against its target, decided by the database alone. */
function statusesBySql(string $first, string $last): array
{
    return collect(DB::select("
        SELECT ku.id, CASE
            WHEN x.target = 0 AND x.adverse < 0 THEN 'green'
            WHEN x.target = 0 THEN CASE WHEN x.adverse = 0 AND rs.green >= 0 THEN 'green' WHEN x.adverse = 0 AND rs.amber >= 0 THEN 'amber' ELSE 'red' END
            WHEN x.adverse * 100 <= abs(x.target) * rs.green THEN 'green'
            WHEN x.adverse * 100 <= abs(x.target) * rs.amber THEN 'amber'
            ELSE 'red' END AS status
        FROM kpi_unit ku JOIN kpis k ON k.id = ku.kpi_id
        JOIN rule_sets rs ON rs.kpi_id = k.id AND rs.reference = 'target' AND rs.measure = 'percent'
        JOIN LATERAL (
            -- Sums serve for means as well: both sides have the same months, and the count cancels out.
            SELECT sum(t.target) AS target, sum(r.actual - t.target) * CASE k.polarity WHEN 'higher' THEN -1 ELSE 1 END AS adverse
            FROM (
                SELECT *, row_number() OVER (ORDER BY period DESC) AS back FROM readings
                WHERE kpi_unit_id = ku.id AND period BETWEEN ? AND ? AND actual IS NOT NULL
            ) r JOIN targets t USING (kpi_unit_id, period)
            WHERE k.accumulation <> 'latest' OR r.back = 1
        ) x ON x.target IS NOT NULL
        WHERE k.polarity <> 'none'", [$first, $last]))->pluck('status', 'id')->all();
}

it('gives every status that the database decides by itself', function (string $span, string $first, string $last) {
    $shown = [];
    foreach (['OST', 'NET', 'TRT', ...DB::table('units')->whereNotIn('kind', ['organisation', 'department'])->pluck('code')] as $unit) {
        $rows = $this->as('executive')->getJson("/api/units/{$unit}/scorecard?period=".substr($last, 0, 7)."&span={$span}")->json('groups.*.rows.*');
        $shown += array_column($rows, 'status', 'id');
    }
    $expected = statusesBySql($first, $last);

    expect(count($expected))->toBeGreaterThan(100)
        ->and(array_intersect_key($shown, $expected))->toEqualCanonicalizing($expected)
        ->and(array_filter($expected, fn (string $status, int $id): bool => $shown[$id] !== $status, ARRAY_FILTER_USE_BOTH))->toBe([]);
})->with([
    ['month', '2026-08-01', '2026-08-01'],
    ['month', '2025-11-01', '2025-11-01'],
    ['quarter', '2026-07-01', '2026-08-01'],
    ['yearToDate', '2026-04-01', '2026-07-01'],
    ['rolling12', '2025-09-01', '2026-08-01'],
]);

it('describes every route of the API, and no other', function () {
    $described = collect(json_decode((string) file_get_contents(base_path('docs/formats/openapi.json')), true)['paths'])
        ->flatMap(fn (array $methods, string $path): array => array_map(fn (string $method): string => strtoupper($method)." {$path}", array_keys($methods)));
    $routed = collect(Routes::getRoutes()->getRoutes())
        ->filter(fn (Route $route): bool => str_starts_with($route->uri(), 'api/'))
        ->map(fn (Route $route): string => "{$route->methods()[0]} /{$route->uri()}");

    expect($described->sort()->values()->all())->toBe($routed->sort()->values()->all());
});

it('drops older limits that a turned polarity cannot use, and still reads the page', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/EFFLUENT?period=2026-08')->json();
    DB::table('period_states')->delete();
    app()->forgetScopedInstances();
    $rule = ['from' => '2026-08', 'reference' => 'none', 'measure' => 'level', 'green' => '1', 'amber' => '2'];
    $this->putJson('/api/kpis/EFFLUENT?period=2026-08', [...$kpi, 'polarity' => 'lower', 'rule' => $rule])->assertOk();

    expect(RuleSet::query()->whereRelation('kpi', 'code', 'EFFLUENT')->pluck('valid_from')->all())->toBe(['2026-08-01']);
    $this->getJson('/api/units/WST/scorecard?period=2026-07&span=month')->assertOk()
        ->assertJsonFragment(['code' => 'EFFLUENT', 'status' => 'not-judged']);
});

it('takes a target back when its cell is emptied, and a unit without figures away', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $extra = [...$kpi, 'units' => [...$kpi['units'], [...$kpi['units'][0], 'unit' => 'Z-PENNOCK']], 'targets' => ['NET' => ['2026-12' => '', '2027-01' => '57.5']]];
    $this->putJson('/api/kpis/LEAK?period=2026-08', $extra)->assertOk()
        ->assertJsonMissingPath('targets.NET.2026-12')->assertJsonPath('targets.NET.2027-01', '57.5')->assertJsonPath('units.1.unit', 'Z-PENNOCK');
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'version' => 2])->assertOk()->assertJsonCount(1, 'units');
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'version' => 3, 'targets' => ['NET' => ['2026-05' => '57.5']]])->assertStatus(422)->assertJsonPath('errors.0.detail', 'May 2026 is closed. It can change only after it is reopened.');
});

it('lists the register with what is still open', function () {
    Kpi::query()->where('code', 'LEAK')->firstOrFail()->ruleSets()->delete();
    $this->as('owner')->getJson('/api/kpis')->assertOk()->assertJsonCount(28, 'kpis')->assertJsonMissing(['code' => 'FLOODING']);
    $page = $this->as('analyst')->getJson('/api/kpis')->assertOk()->json();
    $lines = array_column($page['kpis'], null, 'code');

    expect($lines)->toHaveCount(90)
        ->and($lines['LEAK'])->toMatchArray(['lacksLimits' => true, 'department' => 'NET', 'owners' => ['Tom Fairley'], 'units' => ['NET'], 'open' => []])
        ->and($lines['Z-LEAK'])->toMatchArray(['lacksLimits' => false, 'level' => 'operational'])->and($lines['Z-LEAK']['units'])->toHaveCount(12)
        ->and($lines['PULSE']['open'])->toBe(['Can it be measured today?', 'Is its definition agreed?'])
        ->and($page['themes'][0]['name'])->toBe('Customers')->and($page['objectives'])->toHaveCount(6);
});

it('fills the ribbon by what has arrived', function () {
    $months = $this->as('executive')->getJson('/api/units/WST/ribbon?period=2026-08')->assertOk()->json('months');

    expect(array_column($months, 'reported'))->toBe([6, 6, 6, 6, 1, 0, 0, 0, 0, 0, 0, 0])
        ->and($months[4]['status'])->toBe('no-data')->and($months[3]['expected'])->toBe(6);
});

it('tells nothing of what broke inside', function () {
    DB::statement('ALTER TABLE targets RENAME COLUMN target TO hidden');
    $answer = $this->as('executive')->getJson('/api/units/NET/ribbon?period=2026-08')->assertStatus(500);

    expect($answer->getContent())->not->toContain('SQL')->and($answer->json('detail'))->toContain('Nothing was saved');
});

it('leaves a database that holds data as it is', function () {
    $before = Measurement::query()->count();
    $this->artisan('demo:load')->expectsOutputToContain('stays as it is')->assertSuccessful();

    expect(Measurement::query()->count())->toBe($before)
        ->and(fn () => app(Loader::class)->load())->toThrow(Illuminate\Database\QueryException::class);
});

it('leads from the type of a problem to what it means, for each of them', function (ProblemType $type) {
    $this->get($type->address())->assertOk()->assertSee($type->title())->assertSee($type->remedy(), false);
})->with(ProblemType::cases());

it('types problems by what went wrong', function (Throwable $error, ProblemType $type, int $status) {
    $answer = Problem::from($error);
    expect($answer->getStatusCode())->toBe($status)->and($answer->getData(true))->toMatchArray(['type' => $type->address(), 'title' => $type->title(), 'status' => $status]);
})->with([
    'a wrong field' => [fn () => ValidationException::withMessages(['a' => 'b']), ProblemType::Invalid, 422],
    'another was faster' => [fn () => new Conflict('It is 5 by now.', ['text' => '5']), ProblemType::Conflict, 409],
    'nobody' => [fn () => new AuthenticationException, ProblemType::SignedOut, 401],
    'not theirs' => [fn () => new AuthorizationException, ProblemType::NotAllowed, 403],
    'nothing there' => [fn () => new ModelNotFoundException, ProblemType::NotFound, 404],
    'another method' => [fn () => new MethodNotAllowedHttpException(['GET']), ProblemType::Refused, 405],
    'a mistake of ours' => [fn () => new RuntimeException('secret'), ProblemType::Broken, 500],
]);
