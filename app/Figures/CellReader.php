<?php

declare(strict_types=1);

namespace App\Figures;

use App\Actions\TypedCell;
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
     * @param  bool  $isTarget  a target instead of a reading
     * @return array{Period, CellValue}
     *
     * @throws InvalidArgumentException with the reason why the cell is refused
     */
    public function read(TypedCell $cell, ?KpiFacts $kpi, bool $isTarget, User $user): array
    {
        if ($kpi === null) {
            throw new InvalidArgumentException('This KPI is not measured here any longer.');
        }
        $period = Period::parse($cell->period, $kpi->measurement->definition->frequency);
        $lock = $isTarget ? $this->rules->targetLock($kpi, $period, $user) : $this->rules->readingLock($kpi, $period, $user);
        if ($lock !== '') {
            throw new InvalidArgumentException(EntryRules::sentence($lock, $kpi, $period));
        }
        if ($this->reader !== $user) {
            $this->reader = $user;
            $this->text = new CellText(new NumberSetting($user->locale));
        }
        $value = $this->text->read($kpi->measurement->definition, $cell->typed, $isTarget);
        $problem = $isTarget ? '' : $this->rules->outOfBounds($kpi, $value->figure);
        if ($problem !== '') {
            throw new InvalidArgumentException($problem);
        }

        return [$period, $value];
    }
}
