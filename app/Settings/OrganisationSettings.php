<?php

declare(strict_types=1);

namespace App\Settings;

/** What an organisation sets for itself. */
final readonly class OrganisationSettings
{
    /**
     * @param  int<1, 12>  $yearStartMonth
     * @param  string  $timeZone  IANA name
     * @param  string  $currency  ISO 4217
     * @param  string  $locale  the number setting of people who are invited
     * @param  int  $sessionHours  after which somebody who does nothing signs in again
     * @param  int  $sessionDays  after which everybody signs in again
     * @param  int|null  $trailYears  how long changes stay in the trail; null for good
     * @param  int  $lawYears  for which the law wants it kept here
     * @param  string|null  $accent  the organisation's colour on paper, `#0b4a6f`
     * @param  'analyst'|'head'|'nobody'  $callers  who may call a status other than it was computed
     * @param  array{rule: string, green: string, other: string}  $rollUp  of the organisation from its units
     */
    public function __construct(
        public string $name,
        public int $yearStartMonth,
        public string $timeZone,
        public string $currency,
        public string $locale,
        public bool $needsSecondFactor,
        public int $sessionHours,
        public int $sessionDays,
        public ?int $trailYears,
        public int $lawYears,
        public ?string $accent,
        public string $callers,
        public KpiDefaults $kpi,
        public array $rollUp,
    ) {}
}
