<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Role;
use App\Models\User;
use App\Support\Finding;
use App\Support\Installation;
use App\Support\Readiness;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;

final class Doctor extends Command
{
    protected $signature = 'doctor';

    protected $description = 'Say what is wrong with the installation, in sentences, and what to do';

    public function handle(Readiness $readiness, Connection $database, Installation $installation): int
    {
        $findings = $readiness->findings();
        if ($findings[0]->isWell && ! $this->isOld($findings)) {
            $failed = $database->table('failed_jobs')->count();
            $findings[] = new Finding('failed', $failed === 0, $failed === 0 ? 'nothing in the background has failed for good' : "{$failed} things in the background have failed for good", 'bin/kybernet queue:failed lists them, queue:retry all tries them again.');
            $administers = User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Administrator))->whereNull('blocked_at')->whereNotNull('joined_at')->exists();
            $findings[] = new Finding('administrator', $administers || $database->table('units')->doesntExist(), 'somebody administers it', 'bin/kybernet person:role EMAIL administrator makes somebody an administrator.');
            $findings[] = new Finding('address', $installation->isDemonstration() || str_starts_with(config()->string('app.url'), 'https://') || preg_match('#^http://(127\.|localhost)#', config()->string('app.url')) === 1, 'what is sent is encrypted on its way, or stays on this machine', 'APP_URL is not https: put a proxy with TLS before it, as in deploy/nginx.');
        }
        foreach ($findings as $finding) {
            $this->line(($finding->isWell ? '  ✓ ' : '  ✗ ').$finding->words);
            if (! $finding->isWell) {
                $this->line("    {$finding->remedy}");
            }
        }

        return array_filter($findings, fn (Finding $finding): bool => ! $finding->isWell) === [] ? self::SUCCESS : self::FAILURE;
    }

    /** @param  list<Finding>  $findings */
    private function isOld(array $findings): bool
    {
        return array_filter($findings, fn (Finding $finding): bool => $finding->name === 'migrations' && ! $finding->isWell) !== [];
    }
}
