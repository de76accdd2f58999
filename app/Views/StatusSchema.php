<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

/** The five statuses by name, as every resource gives them. */
#[OA\Schema(schema: 'Status', type: 'string', enum: ['green', 'amber', 'red', 'not-judged', 'no-data'])]
final class StatusSchema
{
    public const REF = '#/components/schemas/Status';
}
