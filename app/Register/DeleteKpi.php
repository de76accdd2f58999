<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\DefinitionRows;
use App\Figures\MeasurementLock;
use App\Models\Kpi;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Takes away a KPI that was defined by mistake. One that says anything already is retired instead.
 */
final readonly class DeleteKpi
{
    /** What belongs to a KPI in a unit and would be lost. */
    private const KEPT = ['readings' => 'figures', 'notes' => 'notes', 'calls' => 'calls', 'actions' => 'actions'];

    public function __construct(private Connection $database, private MeasurementLock $lock, private Trail $trail) {}

    /** @throws ValidationException with the reason why it stays */
    public function __invoke(Kpi $kpi): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($kpi): void {
            $this->lock->holdKpis([$kpi->id]);
            $places = $this->database->table('kpi_unit')->where('kpi_id', $kpi->id)->pluck('id');
            foreach (self::KEPT as $table => $words) {
                $hasAny = $this->database->table($table)->whereIn('kpi_unit_id', $places)
                    // A figure that was taken back is none.
                    ->when($table === 'readings', fn (Builder $query): Builder => $query->whereRaw('(actual IS NOT NULL OR colour IS NOT NULL)'))->exists();
                if ($hasAny) {
                    throw ValidationException::withMessages(['code' => "{$kpi->name} has {$words}, so it stays. Retire it from a month on instead."]);
                }
            }
            $user = $this->usedBy($kpi);
            if ($user !== null) {
                throw ValidationException::withMessages(['code' => "{$user} refers to {$kpi->name}, so it stays."]);
            }
            $this->database->table('readings')->whereIn('kpi_unit_id', $places)->delete();
            $this->database->table('kpis')->where('id', $kpi->id)->delete();
        });
    }

    /** The name of a KPI whose formulas or weights name it. */
    private function usedBy(Kpi $kpi): ?string
    {
        $weighted = $this->database->table('kpis')->where('weighted_by_id', $kpi->id)->value('name');
        if ($weighted !== null) {
            return $weighted;
        }
        foreach ($this->database->table('kpis')->whereRaw('(formula IS NOT NULL OR target_formula IS NOT NULL)')->where('id', '<>', $kpi->id)->get() as $other) {
            foreach (DefinitionRows::operands($other) as $operand) {
                if ($operand->code === $kpi->code) {
                    return $other->name;
                }
            }
        }

        return null;
    }
}
