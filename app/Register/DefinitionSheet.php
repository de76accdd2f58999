<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\DatabaseWorkbook;
use App\Models\User;
use App\Tables\BookSheet;
use App\Tables\RowsTable;
use App\Tables\SheetOutcome;

/**
 * Definitions as the register writes them, a row a KPI.
 */
final readonly class DefinitionSheet implements BookSheet
{
    public function __construct(private DatabaseWorkbook $workbook, private ImportDefinitions $import) {}

    public function name(): string
    {
        return 'Definitions';
    }

    public function explanation(): string
    {
        return 'A line for each KPI. Needed: code, name, units (their codes, with semicolons between them). Usual: measure (%, hours), polarity (higher, lower, band, none), accumulation (sum, mean, latest, recompute for formulas), frequency (month), ruleFrom (2024-01), ruleReference (target), ruleMeasure (percent), ruleGreen (0), ruleAmber (5). What is left blank is as for a new KPI.';
    }

    public function head(): array
    {
        return DefinitionTable::head();
    }

    public function figures(): array
    {
        return DefinitionTable::figures();
    }

    public function rows(User $user): iterable
    {
        $isHead = true;
        foreach (DefinitionTable::rows($this->workbook->definitions()) as $row) {
            if (! $isHead) {
                yield $row;
            }
            $isHead = false;
        }
    }

    public function take(array $rows, User $user): SheetOutcome
    {
        $outcome = new SheetOutcome;
        // Columns that are not there leave alone what they are about.
        $columns = array_values(array_intersect($this->head(), array_keys(array_values($rows)[0] ?? [])));
        $table = [1 => $columns];
        foreach ($rows as $line => $row) {
            $table[$line] = array_map(fn (string $column) => $row[$column] ?? '', $columns);
        }
        foreach ($this->import->take(new RowsTable($table), $user) as $definition) {
            $outcome->count($definition->outcome, $definition->line, implode(' ', $definition->words));
        }

        return $outcome;
    }
}
