<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\DatabaseWorkbook;
use App\Support\Formats;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\Workbook;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * Holds new definitions against all rules of a workbook, in the company of every other KPI: the same checks, in the
 * same words, whether a definition comes from the editor, a table or a workbook.
 */
final readonly class DefinitionCheck
{
    public function __construct(private DatabaseWorkbook $workbook) {}

    /**
     * @param  array<int, array{replaces: string|null, kpi: array<string, mixed>}>  $definitions  each as a workbook has it, with the code of the KPI whose place it takes
     * @return array{array<int, KpiEntry>, array<int, array<string, Problem>>} what was read, and what is wrong by JSON pointer, both by the same index
     */
    public function __invoke(array $definitions): array
    {
        $book = $this->decoded($this->workbook->definitions());
        $kpis = array_values(array_filter($book['kpis'] ?? [], is_array(...)));
        $codes = array_column($kpis, 'code');
        $places = [];
        foreach ($definitions as $index => $definition) {
            $at = $definition['replaces'] === null ? false : array_search($definition['replaces'], $codes, true);
            $places[$index] = $at === false ? count($kpis) : $at;
            $kpis[$places[$index]] = $definition['kpi'];
        }
        try {
            $read = Formats::reader()->read(json_encode([...$book, 'kpis' => $kpis], JSON_THROW_ON_ERROR));
        } catch (BadWorkbook $bad) {
            return [[], $this->byDefinition($bad->problems, $places, $kpis)];
        }

        return [array_map(fn (int $place): KpiEntry => $read->kpis[$place], $places), []];
    }

    /** @return array<string, mixed> */
    private function decoded(Workbook $workbook): array
    {
        /** @var array<string, mixed> $book */
        $book = json_decode(implode('', [...WorkbookWriter::json($workbook)]), true, flags: JSON_THROW_ON_ERROR);

        return $book;
    }

    /**
     * @param  list<Problem>  $problems
     * @param  array<int, int>  $places  where each definition stands
     * @param  array<int, array<string, mixed>>  $kpis
     * @return array<int, array<string, Problem>>
     */
    private function byDefinition(array $problems, array $places, array $kpis): array
    {
        $owners = array_flip($places);
        $found = [];
        foreach ($problems as $problem) {
            if (preg_match('#\A/kpis/(\d+)(.*)\z#', $problem->pointer, $match) !== 1) {
                continue;
            }
            $index = $owners[(int) $match[1]] ?? null;
            if ($index !== null) {
                $found[$index][$match[2]] ??= $problem;

                continue;
            }
            // Another KPI is at odds with a definition only since this changed: it names what is gone, or closes a circle.
            $other = $kpis[(int) $match[1]]['name'] ?? '';
            $other = is_string($other) ? $other : '';
            foreach (array_keys($places) as $each) {
                $found[$each][$problem->code === 'cycle' ? $match[2] : '/code'] ??= $problem->code === 'cycle'
                    ? $problem
                    : new Problem($problem->pointer, $problem->code, "{$other} refers to it: {$problem->message}");
            }
        }

        return $found;
    }
}
