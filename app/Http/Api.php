<?php

declare(strict_types=1);

namespace App\Http;

use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

/**
 * What all addresses of the API share.
 */
#[OA\OpenApi(openapi: '3.1.0')]
#[OA\Info(version: '1', title: 'Kybernet', description: 'The API behind the screens: JSON, a cookie session, RFC 9457 problems. Programs use what stands below /api/programs, with a token instead of a session.')]
#[OA\Parameter(parameter: 'unit', name: 'unit', in: 'path', required: true, description: 'code of the unit', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'briefing', name: 'briefing', in: 'path', required: true, description: 'code of the briefing', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'recordSet', name: 'recordSet', in: 'path', required: true, description: 'code of the record set', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'recordLoad', name: 'recordLoad', in: 'path', required: true, description: 'identity of the load', schema: new OA\Schema(type: 'integer'))]
#[OA\Parameter(parameter: 'import', name: 'import', in: 'path', required: true, description: 'identity of the import', schema: new OA\Schema(type: 'integer'))]
#[OA\Parameter(parameter: 'format', name: 'format', in: 'query', required: true, schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'kpi', name: 'kpi', in: 'path', required: true, description: 'code of the KPI', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'measurement', name: 'measurement', in: 'path', required: true, description: 'identity of the KPI in a unit', schema: new OA\Schema(type: 'integer'))]
#[OA\Parameter(parameter: 'month', name: 'period', in: 'path', required: true, description: 'a month, 2026-08', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'own-period', name: 'period', in: 'path', required: true, description: 'a period in the frequency of the KPI: 2026-08, 2026-W34, FY2026-Q2, FY2026', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'layer', name: 'layer', in: 'query', required: true, schema: new OA\Schema(type: 'string', enum: ['actual', 'target', 'prior']))]
#[OA\Parameter(parameter: 'columns', name: 'columns', in: 'query', required: true, schema: new OA\Schema(type: 'string', enum: ['month', 'week']))]
#[OA\Parameter(parameter: 'period', name: 'period', in: 'query', required: true, description: 'a month, 2026-08', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'week', name: 'week', in: 'query', required: false, description: 'a week of ISO 8601, 2026-W34: KPIs that have weeks are told of it', schema: new OA\Schema(type: 'string'))]
#[OA\Parameter(parameter: 'span', name: 'span', in: 'query', required: true, schema: new OA\Schema(type: 'string', enum: Span::class))]
#[OA\SecurityScheme(securityScheme: 'token', type: 'http', scheme: 'bearer', description: 'the token of a program: Settings, Programs')]
#[OA\Response(response: 'Problem', description: 'What went wrong', content: new OA\MediaType(mediaType: 'application/problem+json', schema: new OA\Schema(ref: '#/components/schemas/Problem')))]
final class Api {}
