<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

/**
 * One reason why a KPI deserves attention.
 */
final readonly class Reason
{
    /**
     * @param  string  $code  `red`, `amber`, `worsened`, `persistent`, `projected-miss`, `signal`, `behind-prior-year`, `missing` or `unexplained`
     * @param  int  $points  before the KPI's weight
     */
    public function __construct(public string $code, public int $points, public string $text) {}
}
