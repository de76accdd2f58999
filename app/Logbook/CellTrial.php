<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Logbook\Views\CellVerdict;
use App\Models\User;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Scorecard;

/**
 * Tries typed cells without saving them: which are refused and why, and how the others would be judged together.
 */
final readonly class CellTrial
{
    public function __construct(private MeasurementStore $kpis, private CellReader $reader, private Scorecard $scorecard) {}

    /**
     * @param  list<TypedCell>  $cells
     * @return list<CellVerdict> one a cell, in the same order
     */
    public function __invoke(array $cells, bool $isTarget, Period $month, User $user): array
    {
        $months = $this->scorecard->year->months($month);
        $ids = array_values(array_unique(array_map(fn (TypedCell $cell): int => $cell->measurement, $cells)));
        $facts = $this->kpis->some($ids, $months[0], $months[11]);
        $text = new CellText(new NumberSetting($user->locale));
        $verdicts = [];
        $sound = [];
        $tried = array_map(fn (MeasurementFacts $kpi) => $kpi->measurement, $facts);
        foreach ($cells as $index => $cell) {
            $kpi = $facts[$cell->measurement] ?? null;
            try {
                [, $period, $value] = $this->reader->tried($cell, $kpi, $isTarget ? Layer::Target : Layer::Reading, $user);
            } catch (InvalidArgumentException $problem) {
                $verdicts[$index] = CellVerdict::refused($cell, $problem->getMessage());

                continue;
            }
            $sound[$index] = [$period, $value];
            if (! $isTarget) {
                $tried[$cell->measurement] = $tried[$cell->measurement]->entering($period, $value->figure ?? ($value->colour === null ? null : BigDecimal::of((int) $value->colour->score())));
            }
        }
        foreach ($sound as $index => [$period, $value]) {
            $cell = $cells[$index];
            $definition = $tried[$cell->measurement]->definition;
            $verdicts[$index] = CellVerdict::sound(
                $cell,
                $text->write($definition, $facts[$cell->measurement]->scaled, $value),
                $isTarget || $value->isBlank() ? null : $this->scorecard->periodStatus($tried[$cell->measurement], $period),
                $isTarget ? '' : $this->scorecard->unusual($tried[$cell->measurement], $period)?->question($definition->decimals) ?? '',
            );
        }
        ksort($verdicts);

        return array_values($verdicts);
    }
}
