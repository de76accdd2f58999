<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

/** The five statuses by name, as every resource gives them. */
#[OA\Schema(schema: 'Status', type: 'string', enum: Status::class)]
final class StatusSchema
{
    public const REF = '#/components/schemas/Status';
}
