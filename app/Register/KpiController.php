<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\Closures;
use App\Figures\DatabaseWorkbook;
use App\Figures\MeasurementStore;
use App\Http\PeriodRequest;
use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\User;
use App\Organisation\Organisation;
use App\Records\RecordSets;
use App\Register\Views\KpiDefinition;
use App\Register\Views\Pairing;
use App\Support\NumberSetting;
use Illuminate\Container\Attributes\CurrentUser;
use Illuminate\Http\JsonResponse;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

final readonly class KpiController
{
    public function __construct(
        private FinancialYear $year,
        private DatabaseWorkbook $workbook,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Closures $closures,
        private RecordSets $sets,
    ) {}

    #[OA\Get(path: '/api/kpis', operationId: 'register', responses: [
        new OA\Response(response: 200, description: 'The register', content: new OA\JsonContent(ref: '#/components/schemas/RegisterPage')),
    ])]
    #[OA\Get(path: '/api/programs/kpis', operationId: 'programKpis', security: [['token' => []]], responses: [
        new OA\Response(response: 200, description: 'The register', content: new OA\JsonContent(ref: '#/components/schemas/RegisterPage')),
    ])]
    public function index(RegisterReader $register, #[CurrentUser] User $user): JsonResponse
    {
        return new JsonResponse($register->page($user));
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
        return new JsonResponse($this->definition($save($request->draft(), null, $user), $view->period(), $user), 201);
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
        return new JsonResponse($this->definition($save($request->draft(), $kpi, $user), $view->period(), $user));
    }

    #[OA\Patch(path: '/api/kpis', operationId: 'changeKpis', requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/BulkInput')), responses: [
        new OA\Response(response: 200, description: 'The register', content: new OA\JsonContent(ref: '#/components/schemas/RegisterPage')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function bulk(BulkRequest $request, ChangeKpis $change, RegisterReader $register, #[CurrentUser] User $user): JsonResponse
    {
        $change($request->codes(), $request->changes(), $request->until(), $request->move());

        return new JsonResponse($register->page($user));
    }

    #[OA\Get(path: '/api/pairings', operationId: 'pairings', responses: [
        new OA\Response(response: 200, description: 'What goes with what in a rule', content: new OA\JsonContent(type: 'array', items: new OA\Items(ref: '#/components/schemas/Pairing'))),
    ])]
    public function pairings(): JsonResponse
    {
        return new JsonResponse(Pairing::all());
    }

    #[OA\Post(path: '/api/replay', operationId: 'replay', parameters: [
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/ReplayInput')), responses: [
        new OA\Response(response: 200, description: 'The latest periods as they were judged, and as they would have been', content: new OA\JsonContent(ref: '#/components/schemas/Replay')),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function replay(ReplayRequest $request, ReplayReader $reader): JsonResponse
    {
        return new JsonResponse($reader->replay($request->typed()));
    }

    #[OA\Post(path: '/api/formula', operationId: 'checkFormula', parameters: [
        new OA\Parameter(ref: '#/components/parameters/period'),
    ], requestBody: new OA\RequestBody(required: true, content: new OA\JsonContent(ref: '#/components/schemas/FormulaInput')), responses: [
        new OA\Response(response: 200, description: 'What is wrong with the formula, and what it gives', content: new OA\JsonContent(ref: '#/components/schemas/FormulaCheck')),
    ])]
    public function formula(FormulaRequest $request, FormulaReader $reader): JsonResponse
    {
        return new JsonResponse($reader->check($request->typed()));
    }

    private function definition(Kpi $kpi, Period $month, User $user): KpiDefinition
    {
        $months = $this->year->months($month);

        return KpiDefinition::of(
            $this->workbook->kpi($kpi->id, $months[0], $months[11]),
            $kpi->version,
            $month,
            $this->year,
            new NumberSetting($user->locale),
            User::query()->pluck('id', 'email'),
            $this->closed($kpi, $months),
            $user->can('define', $kpi),
            $kpi->record_set_id === null ? null : $this->sets->of($kpi->record_set_id)->set(),
        );
    }

    /**
     * @param  list<Period>  $months  of the year
     * @return array<string, list<string>> its periods that are closed, by unit
     */
    private function closed(Kpi $kpi, array $months): array
    {
        $closed = [];
        foreach ($this->kpis->described(array_values($kpi->measurements->map(fn (Measurement $measurement): int => $measurement->id)->all())) as $facts) {
            $periods = $this->year->endingIn($facts->measurement->definition->frequency, $months[0], $months[11]);
            $closed[$this->organisation->unit($facts->unitId)->code] = array_values(array_map(
                fn (Period $period): string => $period->key(),
                array_filter($periods, fn (Period $period): bool => $this->closures->locks($facts, $period)),
            ));
        }

        return $closed;
    }

    #[OA\Delete(path: '/api/kpis/{kpi}', operationId: 'deleteKpi', parameters: [
        new OA\Parameter(ref: '#/components/parameters/kpi'),
    ], responses: [
        new OA\Response(response: 204, description: 'It is gone'),
        new OA\Response(ref: '#/components/responses/Problem', response: 422),
    ])]
    public function destroy(Kpi $kpi, DeleteKpi $delete): JsonResponse
    {
        $delete($kpi);

        return new JsonResponse(null, 204);
    }
}
