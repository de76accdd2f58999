<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Status\Status;

/**
 * What is known of a KPI in a unit when the text of a month is drafted.
 */
final readonly class Told
{
    /**
     * @param  string  $unit  code of its unit; blank for the page's
     * @param  string  $unitName  blank for the page's
     * @param  list<ReasonCode>  $reasons  why it deserves attention
     * @param  int  $run  periods in a row that are not on course
     * @param  string  $why  what the note of the latest period says; blank without one
     * @param  string  $outlook  what it says of what is expected
     * @param  list<Agreed>  $actions  those that are open
     */
    public function __construct(
        public string $kpi,
        public string $name,
        public string $unit,
        public string $unitName,
        public Status $status,
        public array $reasons,
        public bool $isRecovered = false,
        public int $run = 0,
        public string $why = '',
        public string $outlook = '',
        public array $actions = [],
    ) {}

    public function has(ReasonCode $reason): bool
    {
        return in_array($reason, $this->reasons, true);
    }

    public function figure(string $what = ''): string
    {
        return (string) new LiveFigure($this->kpi, $this->unit, $what);
    }

    public function place(): string
    {
        return LiveFigure::plain($this->name.($this->unitName === '' ? '' : " in {$this->unitName}"));
    }
}
