<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\DriverLine;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Models\User;
use App\Review\CourseReader;
use App\Review\Related;
use Kybernet\Core\Scorecard;

/**
 * What a figure depends on, a few steps deep: each step beside how closely it moves with what it drives.
 */
final readonly class DriverReader
{
    public function __construct(private Related $related, private MeasurementStore $kpis, private Scorecard $scorecard) {}

    /** @return list<DriverLine> each right below what it drives; one that drives several stands where it is met first */
    public function of(Place $place, PageView $page, User $user): array
    {
        $drives = $this->tree($place->kpis[0]->id, (int) $place->piece->choice('depth'), $user);
        $ids = array_values(array_unique([$place->kpis[0]->id, ...array_merge(...array_values($drives), ...[[]])]));
        $facts = $this->kpis->whole($ids, $page->month->plus(-CourseReader::MONTHS_BACK), $this->scorecard->year->months($page->month)[11]);
        $lines = [];
        $walk = function (int $of, int $depth) use (&$walk, &$lines, $drives, $facts, $page, $place): void {
            foreach ($this->related->lines($this->related->assessed($drives[$of] ?? [], $facts, $page->month, $place->span), $facts, $page->month, $facts[$of]) as $line) {
                $lines[] = new DriverLine($depth, $line);
                $walk($line->id, $depth + 1);
            }
        };
        $walk($place->kpis[0]->id, 1);

        return $lines;
    }

    /** @return array<int, list<int>> drivers by what they drive */
    private function tree(int $measurement, int $depth, User $user): array
    {
        $drives = [];
        $met = [$measurement => true];
        $level = [$measurement];
        for ($step = 0; $step < $depth && $level !== []; $step++) {
            $next = [];
            foreach (Measurement::query()->findMany($level) as $each) {
                $drives[$each->id] = array_values(array_filter($this->related->to($each, $user)['drivers'], fn (int $id): bool => ! isset($met[$id])));
                $met += array_fill_keys($drives[$each->id], true);
                array_push($next, ...$drives[$each->id]);
            }
            $level = $next;
        }

        return $drives;
    }
}
