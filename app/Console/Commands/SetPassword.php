<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\User;
use Illuminate\Console\Command;

final class SetPassword extends Command
{
    private const LEAST = 10;

    protected $signature = 'password {email : of the account}';

    protected $description = 'Set the password of an account, such as one that came with a workbook';

    public function handle(): int
    {
        $user = User::query()->where('email', $this->argument('email'))->first();
        $password = $user === null ? '' : $this->secret('New password');
        if ($user === null || ! is_string($password) || mb_strlen($password) < self::LEAST) {
            $this->output->getErrorStyle()->writeln($user === null ? 'There is no such account.' : 'A password has at least '.self::LEAST.' characters.');

            return self::FAILURE;
        }
        $user->update(['password' => $password]);

        return self::SUCCESS;
    }
}
