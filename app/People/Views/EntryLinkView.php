<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'EntryLink', description: 'A link by which somebody comes in.')]
final readonly class EntryLinkView
{
    #[OA\Property(description: 'to be handed over; it is shown this once')]
    public string $link;

    public function __construct(string $secret, #[OA\Property(description: 'whether it is on its way by e-mail')] public bool $sent = false)
    {
        // By the installation's own address: what a request says of its host, anybody may have written.
        $this->link = rtrim(config()->string('app.url'), '/')."/enter#{$secret}";
    }
}
