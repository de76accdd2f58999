<?php

declare(strict_types=1);

namespace App\Settings;

use App\Support\Installation;
use App\Support\Logo;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;

/**
 * Puts the demonstration away, all of it, and makes the link with which an organisation of one's own is begun here. Only
 * a demonstration can be put away: the database itself looks (kybernet_leave_demonstration).
 */
final readonly class LeaveDemonstration
{
    public function __construct(private Connection $database, private Installation $installation, private Logo $logo) {}

    /**
     * @param  string  $name  of the organisation that is put away: nobody does it by mistake
     * @return string the secret of the link
     *
     * @throws ValidationException where this is no demonstration, or no longer
     */
    public function __invoke(string $name): string
    {
        return $this->database->transaction(function () use ($name): string {
            $problem = match (true) {
                ! $this->installation->isDemonstration() => 'This is no demonstration.',
                $this->database->table('units')->whereNull('parent_id')->value('name') !== $name => 'Name what is put away.',
                default => '',
            };
            if ($problem !== '') {
                throw ValidationException::withMessages(['name' => $problem]);
            }
            $this->database->statement('SELECT kybernet_leave_demonstration()');
            // What others looked at while they tried it is not the next organisation's.
            $this->logo->remove();
            $this->database->table('installation')->update(['accent' => null, 'trail_years' => null, 'law_years' => 0]);
            $this->installation->forget();

            return $this->installation->open() ?? throw new \LogicException('What was put away is empty.');
        });
    }
}
