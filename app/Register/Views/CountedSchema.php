<?php

declare(strict_types=1);

namespace App\Register\Views;

use Kybernet\Core\Records\Take;
use OpenApi\Attributes as OA;

/** How a KPI is counted and split, in the API: as a workbook has it, with figures as the person types them. */
#[OA\Schema(schema: 'Counted', required: ['records', 'take', 'datedBy'], properties: [
    new OA\Property(property: 'records', description: 'code of the record set', type: 'string'),
    new OA\Property(property: 'take', type: 'string', enum: Take::class),
    new OA\Property(property: 'of', description: 'the field or expression whose values are taken', type: 'string', nullable: true),
    new OA\Property(property: 'percentile', type: 'string', nullable: true),
    new OA\Property(property: 'met', description: 'of a share: all of these', type: 'array', items: new OA\Items(ref: '#/components/schemas/Condition')),
    new OA\Property(property: 'datedBy', description: 'the field by which a record belongs to a period', type: 'string'),
    new OA\Property(property: 'until', description: 'under open: until when', type: 'string', nullable: true),
    new OA\Property(property: 'unit', description: 'the field that names the unit', type: 'string', nullable: true),
    new OA\Property(property: 'where', description: 'all of these must hold', type: 'array', items: new OA\Items(ref: '#/components/schemas/Condition')),
    new OA\Property(property: 'from', description: 'the month from which it is counted', type: 'string', nullable: true),
], type: 'object')]
#[OA\Schema(schema: 'Condition', description: 'one comparison of a field or expression, or `any` of several', type: 'object', additionalProperties: true)]
#[OA\Schema(schema: 'Split', required: ['code', 'name', 'of'], properties: [
    new OA\Property(property: 'code', type: 'string'),
    new OA\Property(property: 'name', type: 'string'),
    new OA\Property(property: 'of', type: 'string'),
    new OA\Property(property: 'bands', type: 'array', items: new OA\Items(required: ['upTo', 'name'], properties: [
        new OA\Property(property: 'upTo', type: 'string', nullable: true),
        new OA\Property(property: 'name', type: 'string'),
    ])),
    new OA\Property(property: 'shares', description: 'that parts should have, in %', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
    new OA\Property(property: 'green', type: 'string', nullable: true),
    new OA\Property(property: 'amber', type: 'string', nullable: true),
], type: 'object')]
enum CountedSchema {}
