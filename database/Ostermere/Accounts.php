<?php

declare(strict_types=1);

namespace Database\Ostermere;

use App\Models\Role;

/**
 * The demonstration accounts. They exist only where the demonstration was loaded.
 */
final class Accounts
{
    public const PASSWORD = 'ostermere';

    private const OWNERS = [
        'TRT' => 'Petra Holloway', 'NET' => 'Tom Fairley', 'CUS' => 'Asha Menon', 'WST' => 'Gil Ferrant',
        'MTR' => 'Cass Whitlow', 'CAP' => 'Nadia Brook', 'PPL' => 'Owen Tarrant', 'FIN' => 'Lucy Amadi',
    ];

    /** @return list<array{email: string, name: string, role: Role, unit: string}> those that the sign-in page offers */
    public static function all(): array
    {
        return [
            self::account('analyst', 'Ines Marrow', Role::Analyst, 'OST'),
            self::account('owner', self::OWNERS['NET'], Role::Owner, 'NET'),
            self::account('head', 'Ruth Sandell', Role::Head, 'NET'),
            self::account('executive', 'Daniel Okoro', Role::Executive, 'OST'),
        ];
    }

    /** @return array<string, array{email: string, name: string, role: Role, unit: string}> the data owner of each department */
    public static function owners(): array
    {
        $owners = [];
        foreach (self::OWNERS as $unit => $name) {
            $owners[$unit] = self::account($unit === 'NET' ? 'owner' : 'owner.'.strtolower($unit), $name, Role::Owner, $unit);
        }

        return $owners;
    }

    /** @return array{email: string, name: string, role: Role, unit: string} */
    private static function account(string $local, string $name, Role $role, string $unit): array
    {
        return ['email' => "{$local}@ostermere.example", 'name' => $name, 'role' => $role, 'unit' => $unit];
    }
}
