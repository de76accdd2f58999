<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\Expression;
use stdClass;

/**
 * What this installation is. It is kept with its data, so no start and no setting changes it.
 */
final class Installation
{
    /** How long the link with which an organisation is begun works. */
    private const LINK_DAYS = 7;

    private ?stdClass $known = null;

    public function __construct(private readonly Connection $database) {}

    public function isDemonstration(): bool
    {
        return (bool) $this->read()->is_demonstration;
    }

    /** Whether it is for an organisation of somebody's own, begun or not: the demonstration is not loaded into it. */
    public function isOwn(): bool
    {
        return (bool) $this->read()->is_own;
    }

    /** @return int<1, 12> the month in which the financial year starts */
    public function yearStartMonth(): int
    {
        return max(1, min(12, (int) $this->read()->year_start_month));
    }

    /** @return string the IANA name of the zone by whose clock months begin and end */
    public function timeZone(): string
    {
        $zone = $this->read()->time_zone ?? null;

        return is_string($zone) ? $zone : 'UTC';
    }

    /** @return string ISO 4217 */
    public function currency(): string
    {
        $currency = $this->read()->currency ?? null;

        return is_string($currency) ? $currency : 'GBP';
    }

    /** Whether the first steps are done, or were put away. */
    public function isSettled(): bool
    {
        return (bool) ($this->read()->is_settled ?? false);
    }

    /** Whether everybody has to have a second factor. */
    public function needsSecondFactor(): bool
    {
        return (bool) ($this->read()->needs_second_factor ?? false);
    }

    /** @return string the number setting that people begin with */
    public function locale(): string
    {
        $locale = $this->read()->locale ?? null;

        return is_string($locale) ? $locale : 'en-GB';
    }

    /** After how many hours somebody who does nothing signs in again. */
    public function sessionHours(): int
    {
        $hours = $this->read()->session_hours ?? null;

        return is_int($hours) ? $hours : 10;
    }

    /** After how many days everybody signs in again, whatever they do. */
    public function sessionDays(): int
    {
        $days = $this->read()->session_days ?? null;

        return is_int($days) ? $days : 30;
    }

    /** @return int|null how many years changes stay in the trail; null for good */
    public function trailYears(): ?int
    {
        $years = $this->read()->trail_years ?? null;

        return is_int($years) ? $years : null;
    }

    /** For how many years the law wants the trail kept here; 0 where it says nothing. */
    public function lawYears(): int
    {
        $years = $this->read()->law_years ?? null;

        return is_int($years) ? $years : 0;
    }

    /** @return string|null the colour of the organisation on paper, `#0b4a6f` */
    public function accent(): ?string
    {
        $accent = $this->read()->accent ?? null;

        return is_string($accent) ? $accent : null;
    }

    /** @return array{host: string, port: int, user: string, from: string, secret: string|null} the mail server set on the screen; the secret is encrypted */
    public function mail(): array
    {
        $kept = $this->read();
        $text = fn (mixed $value): string => is_string($value) ? $value : '';

        return [
            'host' => $text($kept->mail_host ?? null), 'port' => is_int($kept->mail_port ?? null) ? $kept->mail_port : 587, 'user' => $text($kept->mail_user ?? null),
            'from' => $text($kept->mail_from ?? null), 'secret' => is_string($kept->mail_secret ?? null) ? $kept->mail_secret : null,
        ];
    }

    /** @return string who may call a status other than it was computed: `analyst`, `head` (analysts too) or `nobody` */
    public function callers(): string
    {
        $callers = $this->read()->callers ?? null;

        return is_string($callers) ? $callers : 'head';
    }

    /** @return array<string, mixed> what a new KPI begins with */
    public function kpiDefaults(): array
    {
        $kept = $this->read()->kpi_defaults ?? null;
        $defaults = is_string($kept) ? json_decode($kept, true) : null;

        return is_array($defaults) ? array_filter($defaults, fn (int|string $member): bool => is_string($member), ARRAY_FILTER_USE_KEY) : [];
    }

    /** Counts the changes of what the organisation sets for itself. */
    public function version(): int
    {
        $version = $this->read()->version ?? null;

        return is_int($version) ? $version : 1;
    }

    /** What was read is read again: it may have changed. */
    public function forget(): void
    {
        $this->known = null;
    }

    public function settle(): void
    {
        $this->database->table('installation')->update(['is_settled' => true]);
        $this->known = null;
    }

    /** @param  string  $timeZone  IANA name */
    public function become(bool $isDemonstration, int $yearStartMonth, string $timeZone): void
    {
        $this->database->table('installation')->update(['is_demonstration' => $isDemonstration, 'year_start_month' => $yearStartMonth, 'time_zone' => $timeZone, 'is_settled' => true]);
        $this->known = null;
    }

    /**
     * Gives out the secret with which somebody begins an organisation; the one before works no longer.
     *
     * @return string|null null where there is an organisation already
     */
    public function open(): ?string
    {
        $secret = rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
        $opened = $this->database->table('installation')->whereRaw('NOT EXISTS (SELECT FROM units)')
            ->update(['link_hash' => hash('sha256', $secret), 'link_until' => new Expression("now() + interval '".self::LINK_DAYS." days'"), 'is_own' => true, 'is_demonstration' => false]);
        $this->known = null;

        return $opened === 1 ? $secret : null;
    }

    /** Whether an organisation can be begun with the secret. */
    public function opensWith(string $secret): bool
    {
        return $this->openable($secret)->exists();
    }

    /** Takes the secret, once: of several who come with it at the same time one begins. */
    public function begin(string $secret, int $yearStartMonth, string $timeZone, string $currency, string $locale): bool
    {
        $begun = $this->openable($secret)->update([
            'link_hash' => null, 'link_until' => null, 'year_start_month' => $yearStartMonth, 'time_zone' => $timeZone, 'currency' => $currency, 'locale' => $locale,
        ]);
        $this->known = null;

        return $begun === 1;
    }

    private function openable(string $secret): Builder
    {
        return $this->database->table('installation')->where('link_hash', hash('sha256', $secret))->whereRaw('link_until > now() AND NOT EXISTS (SELECT FROM units)');
    }

    private function read(): stdClass
    {
        return $this->known ??= $this->database->table('installation')->first() ?? (object) ['is_demonstration' => false, 'is_own' => false, 'year_start_month' => 4];
    }
}
