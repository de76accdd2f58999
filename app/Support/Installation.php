<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Database\Connection;

/**
 * What this installation is. It is kept with its data, so no start and no setting changes it.
 */
final class Installation
{
    /** @var array{bool, int<1, 12>}|null */
    private ?array $known = null;

    public function __construct(private readonly Connection $database) {}

    public function isDemonstration(): bool
    {
        return $this->read()[0];
    }

    /** @return int<1, 12> the month in which the financial year starts */
    public function yearStartMonth(): int
    {
        return $this->read()[1];
    }

    public function become(bool $isDemonstration, int $yearStartMonth): void
    {
        $this->database->table('installation')->update(['is_demonstration' => $isDemonstration, 'year_start_month' => $yearStartMonth]);
        $this->known = null;
    }

    /** @return array{bool, int<1, 12>} */
    private function read(): array
    {
        if ($this->known === null) {
            $row = $this->database->table('installation')->first();
            $this->known = [(bool) ($row->is_demonstration ?? false), max(1, min(12, (int) ($row->year_start_month ?? 4)))];
        }

        return $this->known;
    }
}
