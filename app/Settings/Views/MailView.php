<?php

declare(strict_types=1);

namespace App\Settings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'MailServer', description: 'Through whom people are written to.')]
final readonly class MailView
{
    public function __construct(
        #[OA\Property(description: 'blank where nobody is written to')] public string $host,
        #[OA\Property] public int $port,
        #[OA\Property(description: 'blank where the server asks for none')] public string $user,
        #[OA\Property(description: 'whether a password is kept; it is never shown')] public bool $hasPassword,
        #[OA\Property(description: 'the address that stands as sender')] public string $from,
        #[OA\Property(description: 'the settings of the place name a server; what is set here waits')] public bool $ofPlace,
    ) {}
}
