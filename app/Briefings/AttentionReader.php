<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\User;
use App\Review\ExceptionReader;
use App\Review\Views\ExceptionItem;
use App\Views\ActionView;

/**
 * What deserves attention below the unit of a piece, and what is being done about it.
 */
final readonly class AttentionReader
{
    public function __construct(private ExceptionReader $exceptions) {}

    /** @return array{exceptions: list<ExceptionItem>, total: int} the most serious first */
    public function exceptions(Place $place, PageView $page, User $user): array
    {
        $found = $this->exceptions->page($place->unit, $page->month, $place->span, $user, (int) $place->piece->choice('count'));

        return ['exceptions' => array_map(fn (ExceptionItem $item): ExceptionItem => $item->forReaders(), $found->items), 'total' => $found->total];
    }

    /** @return array{actions: list<ActionView>, total: int} those that are late first, each part by the day on which it is due */
    public function actions(Place $place, PageView $page, User $user): array
    {
        $open = $this->exceptions->open($place->unit, $page->month, $user);
        if ($place->piece->choice('which') === 'overdue') {
            $open = array_values(array_filter($open, fn (ActionView $action): bool => $action->overdue));
        }

        return ['actions' => array_slice($open, 0, (int) $place->piece->choice('count')), 'total' => count($open)];
    }
}
