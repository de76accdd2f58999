<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\DatabaseWorkbook;
use App\Http\Download;
use App\Http\ExportRequest;
use App\Http\PeriodRequest;
use App\Models\Kpi;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Container\Attributes\CurrentUser;
use Kybernet\Core\Workbook\AssessmentWriter;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;

/** What the managers' screens show, as files. */
final readonly class ReviewFileController
{
    public function __construct(private ReviewTable $table) {}

    #[OA\Get(path: '/api/units/{unit}/scorecard/file', operationId: 'scorecardFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The scorecard as a file; as json the assessment of all KPIs and units', content: new OA\MediaType(mediaType: 'application/octet-stream')),
        new OA\Response(ref: '#/components/responses/Problem', response: 403),
    ])]
    #[OA\Get(path: '/api/programs/units/{unit}/scorecard/file', operationId: 'programScorecardFile', security: [['token' => []]], parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The scorecard as a file; as json the assessment of all KPIs and units', content: new OA\MediaType(mediaType: 'application/octet-stream')),
        new OA\Response(ref: '#/components/responses/Problem', response: 403),
    ])]
    public function scorecard(Unit $unit, PeriodRequest $view, GroupRequest $rows, ExportRequest $request, ScorecardReader $reader, DatabaseWorkbook $workbook, Rights $rights, #[CurrentUser] User $user): StreamedResponse
    {
        $name = "{$unit->code}-scorecard-{$view->period()->key()}";
        if ($request->kind() === 'json') {
            if (! $rights->seesAll($user)) {
                throw new AccessDeniedHttpException('The assessment tells of every unit, and not all of them are yours to see.');
            }

            return Download::json("assessment-{$view->period()->key()}", (new AssessmentWriter($workbook->assessable(), $view->period(), $view->span()))->json());
        }

        return Download::table(
            $name,
            $request->kind(),
            $this->table->scorecard($reader->page($unit, $view->period(), $view->span(), $user, $rows->group())),
            ReviewTable::SCORECARD_FIGURES,
            ReviewTable::SCORECARD_STATUSES,
        );
    }

    #[OA\Get(path: '/api/units/{unit}/exceptions/file', operationId: 'exceptionsFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The exceptions as a file', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function exceptions(Unit $unit, PeriodRequest $view, ExportRequest $request, ExceptionReader $reader, #[CurrentUser] User $user): StreamedResponse
    {
        return Download::table(
            "{$unit->code}-exceptions-{$view->period()->key()}",
            $request->kind(),
            $this->table->exceptions($reader->page($unit, $view->period(), $view->span(), $user)),
            ReviewTable::EXCEPTION_FIGURES,
            ReviewTable::EXCEPTION_STATUSES,
        );
    }

    #[OA\Get(path: '/api/units/{unit}/matrix/file', operationId: 'matrixFile', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(ref: '#/components/parameters/span'),
        new OA\Parameter(name: 'crossing', in: 'query', required: true, schema: new OA\Schema(type: 'string', enum: ['units-months', 'units-kpis', 'kpis-months'])),
        new OA\Parameter(name: 'masked', in: 'query', required: false, description: '1 for letters in place of the names of units', schema: new OA\Schema(type: 'string', enum: ['1'])),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The matrix as a file', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function matrix(Unit $unit, PeriodRequest $view, MatrixRequest $matrix, ExportRequest $request, MatrixReader $reader, #[CurrentUser] User $user): StreamedResponse
    {
        $page = $reader->page($unit, $view->period(), $view->span(), $matrix->crossing(), $matrix->kpi(), $matrix->months(), $user);
        [$figures, $statuses] = $this->table->matrixColumns($page);

        return Download::table("{$unit->code}-matrix-{$view->period()->key()}", $request->kind(), $this->table->matrix($page, $this->countedCodes(), $matrix->isMasked()), $figures, $statuses);
    }

    /** @return list<string> codes of the KPIs that are counted from records */
    private function countedCodes(): array
    {
        return array_values(array_filter(Kpi::query()->where('kind', 'records')->pluck('code')->all(), is_string(...)));
    }
}
