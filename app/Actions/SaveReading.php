<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Figures\KpiStore;
use App\Models\KpiUnit;
use App\Models\Reading;
use App\Models\User;
use App\Support\Month;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;

/**
 * Enters, changes or takes back the reading of one KPI in one unit for one month.
 */
final readonly class SaveReading
{
    public function __construct(private Connection $database, private KpiStore $kpis, private FinancialYear $year) {}

    /**
     * @param  int  $seen  the version that the person saw; 0 when there was no reading
     *
     * @throws ValidationException when the KPI takes no such figure for the month
     * @throws Conflict when the reading is another one by now; nothing is overwritten
     */
    public function __invoke(KpiUnit $measured, Period $month, ?BigDecimal $figure, int $seen, User $user): void
    {
        $this->checkFigure($measured, $month, $figure);
        $key = ['kpi_unit_id' => $measured->id, 'period' => Month::date($month)];
        $written = $seen === 0
            ? $this->database->table('readings')->insertOrIgnore([
                ...$key, 'actual' => $figure?->__toString(), 'version' => 1, 'entered_by' => $user->id,
                'created_at' => now(), 'updated_at' => now(),
            ])
            : Reading::query()->where($key)->where('version', $seen)->update([
                'actual' => $figure?->__toString(), 'version' => $seen + 1, 'entered_by' => $user->id,
            ]);
        if ($written === 1) {
            return;
        }
        $current = $this->database->table('readings')->leftJoin('users', 'users.id', '=', 'readings.entered_by')
            ->where($key)->first(['actual', 'version', 'users.name as by']);
        $typed = (new NumberSetting($user->locale))->write($current?->actual);
        $by = $current->by ?? 'Somebody';

        throw new Conflict($typed === '' ? "{$by} took this reading back in the meantime." : "{$by} entered {$typed} in the meantime.", [
            'text' => $typed,
            'version' => $current->version ?? 0,
            'by' => $by,
        ]);
    }

    /** @throws ValidationException */
    private function checkFigure(KpiUnit $measured, Period $month, ?BigDecimal $figure): void
    {
        $kpi = $this->kpis->one($measured->id, $month, $month) ?? throw new \LogicException('A KPI-unit that was found is there.');
        $definition = $kpi->measurement->definition;
        $problem = match (true) {
            ! $kpi->isTyped($month, $this->year) => "{$kpi->code} takes no typed figure for this month.",
            $figure !== null && $definition->min !== null && $figure->isLessThan($definition->min) => "The figure cannot be below {$definition->min}.",
            $figure !== null && $definition->max !== null && $figure->isGreaterThan($definition->max) => "The figure cannot be above {$definition->max}.",
            default => null,
        };
        if ($problem !== null) {
            throw ValidationException::withMessages(['typed' => $problem]);
        }
    }
}
