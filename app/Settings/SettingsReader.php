<?php

declare(strict_types=1);

namespace App\Settings;

use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Settings\Views\MailView;
use App\Settings\Views\SettingsPage;
use App\Support\Currencies;
use App\Support\Installation;
use App\Support\Logo;
use App\Support\MailServer;
use App\Support\Month;
use App\Support\NumberSetting;
use DateTimeZone;
use Illuminate\Database\Connection;

/**
 * Lays out what the organisation sets for itself.
 */
final readonly class SettingsReader
{
    public function __construct(private Connection $database, private Installation $installation, private Organisation $organisation, private Rights $rights, private MailServer $server, private Logo $logo) {}

    public function page(User $user): SettingsPage
    {
        $root = array_values($this->organisation->units())[0] ?? throw new \LogicException('Whoever administers has an organisation.');
        $method = Organisation::method($root);
        $closed = $this->database->table('period_states')->max('period');

        return new SettingsPage(
            $root->name,
            $this->installation->yearStartMonth(),
            is_string($closed) ? Month::ofDate($closed)->key() : null,
            $this->database->table('readings')->whereNotNull('actual')->count(),
            $this->installation->timeZone(),
            $this->installation->currency(),
            $this->installation->locale(),
            $this->installation->needsSecondFactor(),
            User::query()->whereNull('blocked_at')->where('is_program', false)->whereNull('second_factor_since')->count(),
            $this->installation->sessionHours(),
            $this->installation->sessionDays(),
            $this->installation->trailYears(),
            $this->installation->lawYears(),
            $this->installation->accent(),
            $this->logo->address(),
            $this->mail(),
            $this->installation->callers(),
            $this->defaults(),
            $method->rule->value,
            (string) $method->green,
            (string) $method->amberOrRed,
            $this->installation->version(),
            $this->installation->isDemonstration(),
            $this->rights->administers($user) && $this->rights->seesAll($user),
            DateTimeZone::listIdentifiers(),
            Currencies::all(),
        );
    }

    private function mail(): MailView
    {
        ['host' => $host, 'port' => $port, 'user' => $user, 'from' => $from, 'secret' => $secret] = $this->installation->mail();

        return new MailView($host, $port, $user, $secret !== null, $from, $this->server->isOfPlace());
    }

    /** As the person would type them. */
    public function newKpi(User $user): KpiDefaults
    {
        $kept = $this->defaults();
        $setting = new NumberSetting($user->locale);

        return new KpiDefaults($setting->write($kept->green), $setting->write($kept->amber), $kept->dueDay, $kept->noteRequired, $kept->materiality === '' ? '' : $setting->write($kept->materiality), $kept->textGreen, $kept->textAmber, $kept->textRed);
    }

    private function defaults(): KpiDefaults
    {
        return KpiDefaults::of($this->installation->kpiDefaults());
    }
}
