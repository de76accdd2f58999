<?php

declare(strict_types=1);

namespace App\Support;

/**
 * What a worker does with a file of figures or records. Each begins in some states, is at work in one, and ends in another; where it
 * cannot be finished, the import is back where a person can go on from.
 */
enum FileStep: string
{
    case Read = 'read';
    case Apply = 'apply';
    case Undo = 'undo';

    /** @return list<string> */
    public function begins(): array
    {
        return match ($this) {
            self::Read => ['mapping', 'ready', 'failed'],
            self::Apply => ['ready'],
            self::Undo => ['applied'],
        };
    }

    public function atWork(): string
    {
        return match ($this) {
            self::Read => 'reading',
            self::Apply => 'applying',
            self::Undo => 'undoing',
        };
    }

    public function ends(): string
    {
        return match ($this) {
            self::Read => 'ready',
            self::Apply => 'applied',
            self::Undo => 'undone',
        };
    }

    public function backAt(): string
    {
        return match ($this) {
            self::Read => 'mapping',
            self::Apply => 'ready',
            self::Undo => 'applied',
        };
    }

    public static function ofState(string $state): ?self
    {
        return array_column(array_map(fn (self $step): array => [$step->atWork(), $step], self::cases()), 1, 0)[$state] ?? null;
    }
}
