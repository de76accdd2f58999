<?php

declare(strict_types=1);

namespace App\Import;

use App\Import\Views\ImportCell;
use App\Import\Views\ImportColumn;
use App\Import\Views\ImportCounts;
use App\Import\Views\ImportPage;
use App\Models\Import;
use App\Models\User;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Tables\BadTable;
use App\Tables\NumberCell;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use stdClass;

/**
 * Lays out an import: its columns with their first cells, and what the file says, page by page.
 */
final readonly class ImportReader
{
    private const SAMPLE = 5;

    private const PAGE = 100;

    public function __construct(private Connection $database, private PeriodDate $dates, private FinancialYear $year, private HeadFinder $heads) {}

    public function page(Import $import, User $user, ?string $outcome = null, int $page = 1): ImportPage
    {
        [$head, $sample, $lines, $sheets] = $import->state === 'mapping' && $import->path !== null ? $this->top($import) : [[], [], [], []];
        $counts = $this->database->table('import_cells')->where('import_id', $import->id)->groupBy('outcome')->selectRaw('outcome, count(*) AS cells')->pluck('cells', 'outcome');
        $cells = $this->cells($import, $user, $outcome, $page);

        return new ImportPage(
            $import->id,
            $import->file,
            $import->state,
            $import->problem,
            $import->rows_read,
            $sheets,
            $import->sheet,
            $lines,
            $import->head,
            $this->columns($head, $sample, $import, $user),
            new ImportCounts($counts->get('new', 0), $counts->get('changed', 0), $counts->get('same', 0), $counts->get('refused', 0)),
            array_slice($cells, 0, self::PAGE),
            count($cells) > self::PAGE,
        );
    }

    /**
     * Where the columns are named, and how they are understood as long as nobody corrects it.
     *
     * @return array{string, int, Mapping}
     *
     * @throws BadTable when there is nothing to be read
     */
    public function recognise(string $path, User $user): array
    {
        $isPeriod = $this->periods($user)->isPeriod(...);
        [$sheet, $line] = $this->heads->find($path, $isPeriod);

        return [$sheet, $line, Mapping::recognise($this->heads->top($path, $sheet)[$line] ?? [], $isPeriod)];
    }

    /**
     * How they are understood where somebody says that they are named.
     *
     * @param  int|null  $line  null for where it seems to be
     * @return array{string, int, Mapping}
     *
     * @throws BadTable when there is nothing
     */
    public function recogniseAt(Import $import, string $sheet, ?int $line, User $user): array
    {
        $isPeriod = $this->periods($user)->isPeriod(...);
        $rows = $this->heads->top((string) $import->path, $sheet);
        if ($line === null) {
            $scores = array_map(fn (array $row): int => count(Mapping::recognise($row, $isPeriod)->roles), $rows);
            $line = $scores === [] ? 1 : (int) array_search(max($scores), $scores, true);
        }

        return [$sheet, $line, Mapping::recognise($rows[$line] ?? throw new BadTable('There is nothing in that line.'), $isPeriod)];
    }

    /**
     * How somebody has corrected it.
     *
     * @param  list<string>  $roles  by column
     */
    public function corrected(Import $import, array $roles): Mapping
    {
        [$head] = $this->top($import);
        $columns = array_filter($roles, fn (string $role): bool => $role === 'column');

        return new Mapping(
            array_filter($roles, fn (string $role): bool => $role !== '' && $role !== 'column'),
            array_map(fn (int $column): string => self::text($head[$column] ?? ''), array_combine(array_keys($columns), array_keys($columns))),
        );
    }

    private function periods(User $user): PeriodText
    {
        return new PeriodText($this->year, $user->locale === 'en-US');
    }

    /** @return array{list<string|NumberCell>, list<list<string|NumberCell>>, list<int>, list<string>} the head, the first rows below it, the lines that may be the head, the sheets */
    private function top(Import $import): array
    {
        try {
            $rows = $this->heads->top((string) $import->path, $import->sheet);
            $sheets = $this->heads->sheets((string) $import->path);
        } catch (BadTable) {
            return [[], [], [], []];
        }
        $below = array_filter($rows, fn (int $line): bool => $line > $import->head, ARRAY_FILTER_USE_KEY);

        return [$rows[$import->head] ?? [], array_slice($below, 0, self::SAMPLE), array_keys($rows), $sheets];
    }

    /**
     * @param  list<string|NumberCell>  $head
     * @param  list<list<string|NumberCell>>  $sample
     * @return list<ImportColumn>
     */
    private function columns(array $head, array $sample, Import $import, User $user): array
    {
        $periods = $this->periods($user);

        return array_map(fn (string|NumberCell $cell, int $column): ImportColumn => new ImportColumn(
            self::text($cell),
            isset($import->mapping['periods'][$column]) ? 'column' : $import->mapping['roles'][$column] ?? '',
            $periods->isPeriod(self::text($cell)),
            array_map(fn (array $row): string => self::text($row[$column] ?? ''), $sample),
        ), $head, array_keys($head));
    }

    /** @return list<ImportCell> */
    private function cells(Import $import, User $user, ?string $outcome, int $page): array
    {
        $setting = new NumberSetting($user->locale);

        return array_values($this->database->table('import_cells')
            ->leftJoin('kpi_unit', 'kpi_unit.id', '=', 'import_cells.kpi_unit_id')->leftJoin('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->where('import_id', $import->id)
            ->when($outcome !== null, fn (Builder $query): Builder => $query->where('outcome', $outcome))
            ->orderBy('line')->orderBy('place')
            ->offset(($page - 1) * self::PAGE)->limit(self::PAGE + 1)
            ->get(['import_cells.*', 'kpis.frequency'])
            ->map(fn (stdClass $cell): ImportCell => new ImportCell(
                $cell->line,
                $cell->place,
                $cell->label,
                match ($cell->layer) {
                    'low', 'year' => 'target',
                    default => $cell->layer,
                },
                $cell->period === null ? '' : $this->dates->period($cell->period, $cell->layer === 'year' ? Frequency::Year : Frequency::from($cell->frequency ?? 'month'))->key(),
                $cell->typed,
                is_numeric($cell->was) ? $setting->write((string) $cell->was) : str_replace(' ', $cell->layer === 'low' ? " \u{2013} " : ' ', $cell->was),
                $cell->outcome,
                $cell->reason,
            ))->all());
    }

    private static function text(string|NumberCell $cell): string
    {
        return mb_substr($cell instanceof NumberCell ? $cell->text : $cell, 0, 200);
    }
}
