<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\RuleSet;

/**
 * A KPI in a unit that is being read: figures arrive one by one.
 */
final class MeasurementDraft
{
    /** @var array<string, string> by period */
    public array $readings = [];

    /** @var array<string, array<string, string>> figures of typed parts, by part and period */
    public array $parts = [];

    /** @var array<string, NoteEntry> by period */
    public array $notes = [];

    /** @var array<string, string> by period, and by year */
    public array $targets = [];

    /** @var array<string, string> by period, and by year */
    public array $upperTargets = [];

    /** @var array<string, true> by period */
    public array $submitted = [];

    /** @var array<string, string> days by period */
    public array $asOf = [];

    /** @var list<Call> */
    public array $calls = [];

    /** @var list<ActionEntry> */
    public array $actions = [];

    /**
     * @param  list<RuleSet>  $ownRules
     * @param  list<Period>|null  $baseline
     */
    public function __construct(
        public readonly string $unit,
        public readonly BigDecimal $weight,
        public readonly ?int $position,
        public readonly ?string $owner,
        public readonly Tenure $tenure,
        public readonly bool $isGathered,
        public readonly ?array $baseline,
        public readonly array $ownRules,
    ) {}
}
