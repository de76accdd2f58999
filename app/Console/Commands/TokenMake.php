<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\FindsPerson;
use App\Models\Unit;
use App\Settings\Tokens;
use Carbon\CarbonImmutable;
use Illuminate\Console\Command;

final class TokenMake extends Command
{
    use FindsPerson;

    protected $signature = 'token:make {email : who answers for it} {name : of the program} {unit? : code; the whole organisation when not given} {--writes : it enters readings as well} {--days=365 : for how long it is taken}';

    protected $description = 'Print a token with which a program reads figures, or enters readings as well';

    public function handle(Tokens $tokens): int
    {
        $user = $this->person();
        $code = $this->argument('unit');
        $unit = is_string($code) ? Unit::query()->where('code', $code)->first() : Unit::query()->whereNull('parent_id')->first();
        $days = filter_var($this->option('days'), FILTER_VALIDATE_INT, ['options' => ['min_range' => 1, 'max_range' => 730]]);
        if ($user === null || $unit === null || ! is_int($days)) {
            $this->output->getErrorStyle()->writeln($unit === null ? 'There is no such unit.' : 'Days are from 1 to 730.');

            return self::FAILURE;
        }
        $this->line($tokens->make(strval($this->argument('name')), $unit, $this->option('writes') === true, CarbonImmutable::now()->addDays($days)->toDateString(), $user));

        return self::SUCCESS;
    }
}
