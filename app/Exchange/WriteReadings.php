<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Figures\CellValue;
use App\Figures\FigureWriter;
use App\Figures\Layer;
use App\Figures\MeasurementCodes;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\Outcome;
use App\Figures\WantedCell;
use App\Models\User;
use App\Organisation\Rights;
use App\Support\Trail;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;

/**
 * Writes readings that a program sends, all of them or none. A program has no picture of what stands there, so it writes
 * over it; the trail keeps what was there before.
 */
final readonly class WriteReadings
{
    public function __construct(private MeasurementCodes $codes, private MeasurementStore $kpis, private Rights $rights, private FigureWriter $writer, private Trail $trail) {}

    /**
     * @param  non-empty-list<array{kpi: string, unit: string, period: string, actual: string}>  $readings
     * @return list<string> `saved` or `same`, one for each
     *
     * @throws ValidationException with what is wrong, by the place of the reading
     */
    public function __invoke(array $readings, User $user): array
    {
        $facts = $this->facts($readings, $user);
        $problems = [];
        $wanted = [];
        $seen = [];
        foreach ($readings as $at => $reading) {
            try {
                $kpi = $facts["{$reading['kpi']} {$reading['unit']}"] ?? throw new InvalidArgumentException("There is no KPI {$reading['kpi']} in {$reading['unit']} that this token may see.");
                $cell = new WantedCell($kpi, Period::parse($reading['period'], $kpi->measurement->definition->frequency), self::value($kpi, $reading['actual']), null);
                if (isset($seen["{$kpi->id} {$cell->period->key()}"])) {
                    throw new InvalidArgumentException('This reading stands in the request twice.');
                }
                $seen["{$kpi->id} {$cell->period->key()}"] = true;
                $wanted[$at] = $cell;
            } catch (InvalidArgumentException $problem) {
                $problems["readings.{$at}"] = $problem->getMessage();
            }
        }
        $outcomes = $this->trail->within((string) Str::uuid(), '', function () use ($wanted, $user, &$problems): array {
            $outcomes = [];
            foreach ($this->writer->write(Layer::Reading, $wanted, $user) as $at => $written) {
                $outcomes[$at] = $written->outcome === Outcome::Same ? 'same' : 'saved';
                if ($written->outcome === Outcome::Refused) {
                    $problems["readings.{$at}"] = $written->reason;
                }
            }
            if ($problems !== []) {
                // Nothing of it stays.
                throw ValidationException::withMessages($problems);
            }

            return $outcomes;
        });
        ksort($outcomes);

        return array_values($outcomes);
    }

    /**
     * @param  non-empty-list<array{kpi: string, unit: string, period: string, actual: string}>  $readings
     * @return array<string, MeasurementFacts> those that the token may see, by KPI and unit
     */
    private function facts(array $readings, User $user): array
    {
        $mine = array_filter($this->codes->find(array_map(fn (array $reading): array => [$reading['kpi'], $reading['unit']], $readings)), fn (object $place): bool => $this->rights->maySee($user, $place->unit_id, $place->owner_id));
        $described = $this->kpis->described(array_values(array_map(fn (object $place): int => $place->id, $mine)));
        $facts = [];
        foreach ($mine as $codes => $place) {
            $facts[$codes] = $described[$place->id];
        }

        return $facts;
    }

    private static function value(MeasurementFacts $kpi, string $actual): CellValue
    {
        $isColour = in_array($actual, ['green', 'amber', 'red'], true);
        if ($actual !== '' && $isColour !== ($kpi->measurement->definition->kind === Kind::Judged)) {
            throw new InvalidArgumentException($isColour ? 'This KPI takes figures.' : 'This KPI is judged: green, amber or red.');
        }

        return CellValue::ofText($actual);
    }
}
