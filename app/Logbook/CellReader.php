<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\EntryRules;
use App\Figures\Layer;
use App\Figures\MeasurementFacts;
use App\Models\User;
use App\Support\NumberSetting;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;

/**
 * Reads a typed cell of the year grid: the period it is of, and what it is to hold.
 */
final class CellReader
{
    /** the person whose number setting the text below has: a block has thousands of cells of one */
    private ?User $reader = null;

    private CellText $text;

    public function __construct(private readonly EntryRules $rules) {}

    /**
     * @return array{MeasurementFacts, Period, CellValue}
     *
     * @throws InvalidArgumentException with the reason why it cannot be read
     */
    public function read(TypedCell $cell, ?MeasurementFacts $kpi, Layer $layer, User $user): array
    {
        if ($kpi === null) {
            throw new InvalidArgumentException('This KPI is not measured here any longer.');
        }
        $period = Period::parse($cell->period, $kpi->measurement->definition->frequency);
        if ($this->reader !== $user) {
            $this->reader = $user;
            $this->text = new CellText(new NumberSetting($user->locale));
        }
        try {
            return [$kpi, $period, $this->text->read($kpi->measurement->definition, $cell->typed, $layer === Layer::Target)];
        } catch (InvalidArgumentException $problem) {
            // That a cell is locked goes before what is wrong with its text.
            $refusal = $this->rules->refusal($layer, $kpi, $period, new CellValue, $user);
            throw $refusal === '' ? $problem : new InvalidArgumentException($refusal);
        }
    }

    /**
     * The same, for a cell that is only tried.
     *
     * @return array{MeasurementFacts, Period, CellValue}
     *
     * @throws InvalidArgumentException with the reason why the cell is refused
     */
    public function tried(TypedCell $cell, ?MeasurementFacts $kpi, Layer $layer, User $user): array
    {
        [$kpi, $period, $value] = $this->read($cell, $kpi, $layer, $user);
        $refusal = $this->rules->refusal($layer, $kpi, $period, $value, $user);

        return $refusal === '' ? [$kpi, $period, $value] : throw new InvalidArgumentException($refusal);
    }

    /** What stood in the cell when it was read, as this person types it; nothing where that is no value. */
    public function seen(TypedCell $cell, MeasurementFacts $kpi, Layer $layer): CellValue
    {
        try {
            return $this->text->read($kpi->measurement->definition, $cell->was, $layer === Layer::Target);
        } catch (InvalidArgumentException) {
            return new CellValue;
        }
    }
}
