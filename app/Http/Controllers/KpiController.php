<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Actions\SaveKpi;
use App\Http\Requests\KpiRequest;
use App\Http\Requests\PeriodRequest;
use App\Http\Resources\KpiDefinition;
use App\Http\Resources\PersonResource;
use App\Http\Resources\RegisterLine;
use App\Http\Resources\RegisterPage;
use App\Models\Kpi;
use App\Models\Theme;
use App\Models\User;
use App\Support\Month;
use App\Support\NumberSetting;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Http\JsonResponse;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

final readonly class KpiController
{
    public function __construct(private FinancialYear $year) {}

    #[OA\Get(path: '/api/kpis', operationId: 'register', responses: [
        new OA\Response(response: 200, description: 'The register', content: new OA\JsonContent(ref: '#/components/schemas/RegisterPage')),
    ])]
    public function index(): JsonResponse
    {
        $kpis = Kpi::query()
            ->with(['department', 'theme', 'measurements.owner'])->withExists('ruleSets')
            ->get()
            ->sortBy(fn (Kpi $kpi): array => [$kpi->theme === null ? PHP_INT_MAX : $kpi->theme->position, $kpi->measurements->first()->position ?? 0, $kpi->code]);

        return new JsonResponse(new RegisterPage(
            array_values($kpis->map(fn (Kpi $kpi): RegisterLine => new RegisterLine(
                $kpi->code,
                $kpi->name,
                $kpi->measure,
                $kpi->department->code,
                $kpi->theme?->name,
                $kpi->level,
                $kpi->kind,
                $kpi->polarity,
                $kpi->accumulation,
                $kpi->measurements->count(),
                $kpi->measurements->first()?->owner?->name,
                $kpi->lacksLimits((bool) $kpi->getAttribute('rule_sets_exists')),
            ))->all()),
            array_values(Theme::query()->orderBy('position')->pluck('name')->all()),
            array_values(User::all()->sortBy('name')->map(fn (User $user): PersonResource => new PersonResource($user->id, $user->name))->all()),
        ));
    }

    #[OA\Get(path: '/api/kpis/{kpi}', operationId: 'kpi', parameters: [
        new OA\Parameter(ref: '#/components/parameters/kpi'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], responses: [
        new OA\Response(response: 200, description: 'The definition', content: new OA\JsonContent(ref: '#/components/schemas/KpiDefinition')),
    ])]
    public function show(Kpi $kpi, PeriodRequest $request, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->definition($kpi, $request->period(), $user));
    }

    #[OA\Post(path: '/api/kpis', operationId: 'defineKpi', parameters: [
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/KpiInput')), responses: [
        new OA\Response(response: 201, description: 'Defined', content: new OA\JsonContent(ref: '#/components/schemas/KpiDefinition')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function store(PeriodRequest $view, KpiRequest $request, SaveKpi $save, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->definition($save($request->draft(), null), $view->period(), $user), 201);
    }

    #[OA\Put(path: '/api/kpis/{kpi}', operationId: 'changeKpi', parameters: [
        new OA\Parameter(ref: '#/components/parameters/kpi'),
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/KpiInput')), responses: [
        new OA\Response(response: 200, description: 'Saved', content: new OA\JsonContent(ref: '#/components/schemas/KpiDefinition')),
        new OA\Response(ref: '#/components/responses/Problem', response: 409),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function update(Kpi $kpi, PeriodRequest $view, KpiRequest $request, SaveKpi $save, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($this->definition($save($request->draft(), $kpi), $view->period(), $user));
    }

    private function definition(Kpi $kpi, Period $month, User $user): KpiDefinition
    {
        $months = $this->year->months($month);
        $kpi->load(['department', 'theme', 'ruleSets', 'measurements.unit', 'measurements.ruleSets', 'measurements.targets' => fn (HasMany $targets) => $targets
            ->whereBetween('period', [Month::date($months[0]), Month::date($months[11])])]);

        return KpiDefinition::of($kpi, $month, new NumberSetting($user->locale));
    }
}
