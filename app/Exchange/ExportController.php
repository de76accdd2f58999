<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Http\Download;
use App\Http\ExportRequest;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Container\Attributes\CurrentUser;
use OpenApi\Attributes as OA;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Figures and definitions as files. */
final readonly class ExportController
{
    #[OA\Get(path: '/api/units/{unit}/figures', operationId: 'exportFigures', parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'kpi', in: 'query', required: false, description: 'code of the KPI alone that is wanted', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The figures of the financial year as a file', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    #[OA\Get(path: '/api/programs/units/{unit}/figures', operationId: 'programFigures', security: [['token' => []]], parameters: [
        new OA\Parameter(ref: '#/components/parameters/unit'),
        new OA\Parameter(ref: '#/components/parameters/period'),
        new OA\Parameter(name: 'kpi', in: 'query', required: false, description: 'code of the KPI alone that is wanted', schema: new OA\Schema(type: 'string')),
        new OA\Parameter(ref: '#/components/parameters/format'),
    ], responses: [
        new OA\Response(response: 200, description: 'The figures of the financial year as a file', content: new OA\MediaType(mediaType: 'application/octet-stream')),
    ])]
    public function figures(Unit $unit, ExportRequest $request, FigureTable $table, #[CurrentUser] User $user): StreamedResponse
    {
        $name = ($request->kpi() === '' ? '' : "{$request->kpi()}-")."{$unit->code}-figures-{$request->period()->key()}";
        if ($request->isLong()) {
            return Download::table($name, $request->kind(), $table->long($unit, $request->period(), $user, $request->kpi()), FigureTable::LONG_FIGURES);
        }
        $rows = $table->wide($unit, $request->period(), $user, $request->kpi());

        return Download::table($name, $request->kind(), $rows, range(3, max(3, count($rows[0]) - 1)));
    }
}
