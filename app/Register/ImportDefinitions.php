<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\DatabaseWorkbook;
use App\Models\Kpi;
use App\Models\User;
use App\Register\Views\DefinitionOutcome;
use App\Support\Month;
use App\Tables\BadTable;
use App\Tables\Table;
use Illuminate\Database\Connection;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * Definitions from a table or a workbook: held against what is there, and saved all together or not at all. Figures
 * of a workbook are left alone here.
 *
 * @phpstan-type Definitions array<int, array{replaces: string|null, kpi: array<string, mixed>}>
 */
final readonly class ImportDefinitions
{
    public function __construct(
        private DatabaseWorkbook $workbook,
        private DefinitionCheck $check,
        private SaveKpi $saveKpi,
        private FinancialYear $year,
        private Connection $database,
    ) {}

    /**
     * @return list<DefinitionOutcome>
     *
     * @throws BadTable when the file cannot be read
     */
    public function preview(string $path): array
    {
        $known = $this->known();
        $definitions = $this->definitions($path, $known);
        [, $problems] = ($this->check)($definitions);

        return $this->outcomes($definitions, $problems, $known);
    }

    /**
     * @return list<DefinitionOutcome>
     *
     * @throws ValidationException when one of them is refused
     */
    public function apply(string $path, User $user): array
    {
        $known = $this->known();
        $definitions = $this->definitions($path, $known);
        [$entries, $problems] = ($this->check)($definitions);
        $outcomes = $this->outcomes($definitions, $problems, $known);
        if ($problems !== []) {
            throw ValidationException::withMessages(['file' => 'Some definitions are refused, so none is changed. Correct the file and send it again.']);
        }
        $this->save($entries, $definitions, array_filter(array_column($outcomes, 'outcome', 'line'), fn (string $outcome): bool => $outcome !== 'same'), $user);

        return $outcomes;
    }

    /**
     * Those of a table, saved where none of them is refused.
     *
     * @return list<DefinitionOutcome>
     */
    public function take(Table $table, User $user): array
    {
        $known = $this->known();
        $definitions = DefinitionTable::read($table, $known);
        [$entries, $problems] = ($this->check)($definitions);
        $outcomes = $this->outcomes($definitions, $problems, $known);
        if ($problems === []) {
            $this->save($entries, $definitions, array_filter(array_column($outcomes, 'outcome', 'line'), fn (string $outcome): bool => $outcome !== 'same'), $user);
        }

        return $outcomes;
    }

    /**
     * Defines new KPIs, all of them or none.
     *
     * @param  list<array<string, mixed>>  $kpis  as a workbook has them
     * @param  string  $field  what a refusal is said of
     *
     * @throws ValidationException when one of them is refused
     */
    public function define(array $kpis, User $user, string $field): void
    {
        $definitions = array_map(fn (array $kpi): array => ['replaces' => null, 'kpi' => $kpi], $kpis);
        [$entries, $problems] = ($this->check)($definitions);
        foreach ($problems as $line => $found) {
            $code = $kpis[$line]['code'] ?? '';
            throw ValidationException::withMessages([$field => (is_string($code) ? "{$code}: " : '').(array_values($found)[0]->message ?? 'It cannot be defined.')]);
        }
        $this->save($entries, $definitions, $entries, $user);
    }

    /**
     * @param  array<int, KpiEntry>  $entries
     * @param  Definitions  $definitions
     * @param  array<int, mixed>  $changed  those that are saved
     */
    private function save(array $entries, array $definitions, array $changed, User $user): void
    {
        $year = (int) substr($this->year->of(Month::running())->key(), 2);
        $this->database->transaction(function () use ($entries, $definitions, $changed, $year, $user): void {
            // A formula or a weight may name what the same file defines: those that name nothing come first.
            uasort($entries, fn (KpiEntry $one, KpiEntry $other): int => ($one->definition->weightedBy !== null || $one->drivers !== []) <=> ($other->definition->weightedBy !== null || $other->drivers !== []));
            foreach (array_intersect_key($entries, $changed) as $line => $entry) {
                $kpi = $definitions[$line]['replaces'] === null ? null : Kpi::query()->where('code', $definitions[$line]['replaces'])->firstOrFail();
                ($this->saveKpi)(new KpiDraft($entry, [], [], $year, $kpi->version ?? 0), $kpi, $user);
            }
        });
    }

    /** @return array<string, array<string, mixed>> the KPIs that are there, as a workbook has them, by code */
    private function known(): array
    {
        return array_column(array_map(WorkbookWriter::kpi(...), $this->workbook->definitions()->kpis), null, 'code');
    }

    /**
     * @param  array<string, array<string, mixed>>  $known
     * @return Definitions
     */
    private function definitions(string $path, array $known): array
    {
        if (preg_match('/\A(?:\xEF\xBB\xBF)?\s*\{/', (string) file_get_contents($path, false, null, 0, 64)) !== 1) {
            return DefinitionTable::read(Table::open($path, '', Table::SHORT), $known);
        }
        $book = json_decode((string) file_get_contents($path), true);
        if (! is_array($book) || ($book['format'] ?? '') !== 'kybernet-workbook' || ! is_array($book['kpis'] ?? null)) {
            throw new BadTable('This is JSON, but not a workbook with definitions.');
        }
        $definitions = [];
        foreach (array_values(array_filter($book['kpis'], is_array(...))) as $index => $kpi) {
            $code = is_string($kpi['code'] ?? null) ? $kpi['code'] : '';
            $definitions[$index + 1] = ['replaces' => isset($known[$code]) ? $code : null, 'kpi' => $kpi];
        }

        return $definitions;
    }

    /**
     * @param  Definitions  $definitions
     * @param  array<int, array<string, Problem>>  $problems
     * @param  array<string, array<string, mixed>>  $known
     * @return list<DefinitionOutcome>
     */
    private function outcomes(array $definitions, array $problems, array $known): array
    {
        $outcomes = [];
        foreach ($definitions as $line => ['replaces' => $replaces, 'kpi' => $kpi]) {
            $words = isset($problems[$line])
                ? array_map(fn (string $pointer, Problem $problem): string => trim(ltrim($pointer, '/').': '.$problem->message, ': '), array_keys($problems[$line]), $problems[$line])
                : ($replaces === null ? [] : self::differences($known[$replaces], $kpi));
            $outcomes[] = new DefinitionOutcome(
                $line,
                is_string($kpi['code'] ?? null) ? $kpi['code'] : '',
                is_string($kpi['name'] ?? null) ? $kpi['name'] : '',
                match (true) {
                    isset($problems[$line]) => 'refused',
                    $replaces === null => 'new',
                    $words === [] => 'same',
                    default => 'changed',
                },
                $words,
            );
        }

        return $outcomes;
    }

    /**
     * @param  array<string, mixed>  $before
     * @param  array<string, mixed>  $after
     * @return list<string>
     */
    private static function differences(array $before, array $after): array
    {
        $defaults = ['kind' => 'entered', 'frequency' => 'month', 'decimals' => 0, 'dataAvailable' => false, 'definitionAgreed' => false, 'noteRequired' => false, 'drivers' => [], 'texts' => [], 'rules' => []];
        $words = [];
        foreach (array_unique([...array_keys($before), ...array_keys($after)]) as $member) {
            [$was, $is] = [$before[$member] ?? $defaults[$member] ?? null, $after[$member] ?? $defaults[$member] ?? null];
            if (self::plain($was) !== self::plain($is)) {
                $words[] = is_scalar($was ?? '') && is_scalar($is ?? '') ? "{$member}: ".self::plain($was).' → '.self::plain($is) : "{$member} changes";
            }
        }

        return $words;
    }

    private static function plain(mixed $value): string
    {
        $value = is_object($value) ? get_object_vars($value) : $value;
        if (is_array($value) && ! array_is_list($value)) {
            ksort($value);
        }
        if (is_array($value)) {
            $value = array_map(fn (mixed $item): mixed => is_array($item) || is_object($item) ? self::plain($item) : $item, $value);
        }

        return is_bool($value) ? ($value ? 'yes' : 'no') : (is_scalar($value) || $value === null ? (string) $value : json_encode($value, JSON_THROW_ON_ERROR));
    }
}
