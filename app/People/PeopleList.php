<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Grant;
use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Support\PgArray;
use Illuminate\Support\Str;

/**
 * Reads people from a list that somebody pasted, or from a file that was exported here: a line for each role of each
 * person, its cells in any order. A cell with an @ is the address; what is called like a role or a unit is that; what is
 * left is the name.
 */
final readonly class PeopleList
{
    public const MOST_LINES = 2_000;

    /** What an exported file says besides. */
    private const STATES = ['in', 'invited', 'blocked'];

    private const NO_ROLE = 'Say what they come to do: analyst, head, owner, executive, reader, auditor or administrator.';

    public function __construct(private Organisation $organisation) {}

    /** @return list<ListedPerson> each person once, in the order of the list */
    public function read(string $text): array
    {
        $units = $this->units();
        $roles = self::roles();
        $people = [];
        foreach (Str::of($text)->split('/\R/u') as $number => $line) {
            $cells = self::cells($line);
            if ($cells === [] || ($number === 0 && ! str_contains($line, '@'))) {
                continue;
            }
            [$email, $name, $role, $unit] = ['', '', null, null];
            // From behind: somebody may be called like a role or a unit, and names stand before them.
            foreach (array_reverse($cells) as $cell) {
                $word = mb_strtolower($cell);
                match (true) {
                    str_contains($cell, '@') => $email = $word,
                    $role === null && isset($roles[$word]) => $role = $roles[$word],
                    $unit === null && isset($units[$word]) => $unit = $units[$word],
                    in_array($word, self::STATES, true), preg_match('/\A\d{4}-\d\d-\d\d/', $word) === 1 => null,
                    default => $name = $cell,
                };
            }
            $people[$email] ??= ['line' => $number + 1, 'name' => $name, 'roles' => [], 'problem' => ''];
            $people[$email]['roles'][] = [$role ?? Role::Reader, $role === Role::Administrator || $unit === null ? $this->root() : $unit];
            $people[$email]['problem'] = $people[$email]['problem'] !== '' ? $people[$email]['problem'] : match (true) {
                filter_var($email, FILTER_VALIDATE_EMAIL) === false || mb_strlen($email) > 190 => 'There is no e-mail address such as name@example.org in this line.',
                $name === '' || mb_strlen($name) > 120 => 'There is no name in this line.',
                $role === null => self::NO_ROLE,
                default => '',
            };
        }

        return $this->compared($people);
    }

    /**
     * @param  array<string, array{line: int, name: string, roles: non-empty-list<array{Role, string}>, problem: string}>  $people
     * @return list<ListedPerson>
     */
    private function compared(array $people): array
    {
        $there = [];
        foreach (User::query()->whereRaw('lower(email) = ANY(?::text[])', [PgArray::of(array_keys($people))])->with('grants.unit')->get() as $user) {
            $there[mb_strtolower($user->email)] = $user;
        }
        $listed = [];
        foreach ($people as $email => $person) {
            $user = $there[$email] ?? null;
            $wanted = new WantedPerson($email, $person['name'], $person['roles']);
            $listed[] = new ListedPerson($person['line'], $wanted, $user, match (true) {
                $person['problem'] !== '' => 'refused',
                $user === null => 'new',
                $user->blocked_at !== null, self::stands($user) === [$wanted->name, array_map(fn (array $held): string => "{$held[0]->value} {$held[1]}", $wanted->roles)] => 'same',
                default => 'changed',
            }, $person['problem']);
        }

        return $listed;
    }

    /** @return array{string, list<string>} */
    private static function stands(User $user): array
    {
        return [$user->name, array_values($user->grants->map(fn (Grant $grant): string => "{$grant->role->value} {$grant->unit->code}")->all())];
    }

    /** @return list<string> */
    private static function cells(string $line): array
    {
        $separator = match (true) {
            str_contains($line, "\t") => "\t",
            str_contains($line, ';') => ';',
            default => ',',
        };

        return array_values(array_filter(array_map(fn (?string $cell): string => trim($cell ?? ''), str_getcsv($line, $separator, '"', '')), fn (string $cell): bool => $cell !== ''));
    }

    /** @return array<string, Role> by code and by what it is called */
    private static function roles(): array
    {
        $roles = ['analyst' => Role::Analyst];
        foreach (Role::cases() as $role) {
            $roles[$role->value] = $roles[mb_strtolower($role->words())] = $role;
        }

        return $roles;
    }

    /** @return array<string, string> codes, by code and by name where it is one unit's alone */
    private function units(): array
    {
        $names = array_count_values(array_map(fn (Unit $unit): string => mb_strtolower($unit->name), $this->organisation->units()));
        $units = [];
        foreach ($this->organisation->units() as $unit) {
            if ($names[mb_strtolower($unit->name)] === 1) {
                $units[mb_strtolower($unit->name)] = $unit->code;
            }
        }
        foreach ($this->organisation->units() as $unit) {
            $units[mb_strtolower($unit->code)] = $unit->code;
        }

        return $units;
    }

    private function root(): string
    {
        return (string) array_key_first($this->organisation->parents());
    }
}
