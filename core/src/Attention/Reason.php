<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/**
 * One reason why a KPI deserves attention.
 */
final readonly class Reason
{
    /** @param  int  $points  before the KPI's weight */
    public function __construct(public ReasonCode $code, public int $points, public string $text) {}
}
