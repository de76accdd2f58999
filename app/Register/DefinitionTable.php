<?php

declare(strict_types=1);

namespace App\Register;

use App\Tables\NumberCell;
use App\Tables\Table;
use Kybernet\Core\Workbook\Workbook;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * Definitions as a table, a row a KPI: the same members as in a workbook, with the newest rule set and the units by
 * their codes. A workbook says more; what a table leaves out stays as it is.
 */
final class DefinitionTable
{
    /** Members that are plain texts, numbers or flags of the KPI itself. */
    private const PLAIN = [
        'code', 'name', 'purpose', 'kind', 'measure', 'decimals', 'scale', 'polarity', 'frequency', 'accumulation', 'formula', 'level', 'department', 'theme',
        'objective', 'source', 'dueDay', 'dataAvailable', 'definitionAgreed', 'noteRequired', 'min', 'max', 'materiality', 'targetFormula', 'lowFormula', 'highFormula',
    ];

    private const INTEGERS = ['decimals', 'dueDay'];

    private const FLAGS = ['dataAvailable', 'definitionAgreed', 'noteRequired'];

    private const RULE = ['from', 'reference', 'measure', 'green', 'amber', 'periods', 'stretch', 'low', 'high', 'marginLow', 'marginHigh', 'pace'];

    private const FIGURES = [
        'decimals', 'dueDay', 'min', 'max', 'materiality', 'ruleGreen', 'ruleAmber', 'rulePeriods', 'ruleStretch', 'ruleLow', 'ruleHigh', 'ruleMarginLow', 'ruleMarginHigh',
    ];

    /** @return list<int> columns that hold figures */
    public static function figures(): array
    {
        return array_keys(array_intersect(self::head(), self::FIGURES));
    }

    /** @return non-empty-list<string> */
    public static function head(): array
    {
        return [
            ...self::PLAIN, 'gather', 'weightedBy', 'drivers', 'textGreen', 'textAmber', 'textRed', 'units',
            ...array_map(fn (string $member): string => 'rule'.ucfirst($member), self::RULE),
        ];
    }

    /** @return iterable<list<string>> */
    public static function rows(Workbook $workbook): iterable
    {
        yield self::head();
        foreach ($workbook->kpis as $entry) {
            $kpi = WorkbookWriter::kpi($entry);
            $rules = $kpi['rules'] ?? [];
            usort($rules, fn (array $one, array $other): int => $other['from'] <=> $one['from']);
            yield array_map(self::text(...), [
                ...array_map(fn (string $member): mixed => $kpi[$member] ?? (in_array($member, self::FLAGS, true) ? false : ''), self::PLAIN),
                $kpi['gather']['method'] ?? '', $kpi['gather']['weight'] ?? '', implode('; ', $kpi['drivers'] ?? []),
                $kpi['texts']['green'] ?? '', $kpi['texts']['amber'] ?? '', $kpi['texts']['red'] ?? '', implode('; ', array_column($kpi['units'] ?? [], 'unit')),
                ...array_map(fn (string $member): mixed => $rules[0][$member] ?? '', self::RULE),
            ]);
        }
    }

    /**
     * The definitions of a table, each laid over the one that is there.
     *
     * @param  array<string, array<string, mixed>>  $known  the KPIs that are there, as a workbook has them, by code
     * @return array<int, array{replaces: string|null, kpi: array<string, mixed>}> by line
     */
    public static function read(Table $table, array $known): array
    {
        $columns = null;
        $definitions = [];
        foreach ($table->rows() as $line => $row) {
            $cells = array_map(fn (string|NumberCell $cell): string => trim($cell instanceof NumberCell ? $cell->text : (preg_replace('/\A\'(?=[=+\-@])/', '', $cell) ?? $cell)), $row);
            if ($columns === null) {
                $columns = self::columns($cells);

                continue;
            }
            $typed = [];
            foreach ($columns as $column => $member) {
                $typed[$member] = $cells[$column] ?? '';
            }
            if (implode('', $typed) !== '') {
                $code = $typed['code'] ?? '';
                $definitions[$line] = ['replaces' => isset($known[$code]) ? $code : null, 'kpi' => self::laidOver($typed, $known[$code] ?? [])];
            }
        }

        return $definitions;
    }

    /**
     * @param  list<string>  $cells
     * @return array<int, string> the members that are known, by column
     */
    private static function columns(array $cells): array
    {
        $members = array_combine(array_map(mb_strtolower(...), self::head()), self::head());

        return array_filter(array_map(fn (string $cell): string => $members[mb_strtolower(str_replace(' ', '', $cell))] ?? '', $cells), fn (string $member): bool => $member !== '');
    }

    /**
     * @param  array<string, string>  $typed
     * @param  array<string, mixed>  $kpi
     * @return array<string, mixed>
     */
    private static function laidOver(array $typed, array $kpi): array
    {
        foreach (array_intersect(self::PLAIN, array_keys($typed)) as $member) {
            $kpi[$member] = match (true) {
                in_array($member, self::FLAGS, true) => in_array(mb_strtolower($typed[$member]), ['yes', 'true', '1', 'x'], true),
                in_array($member, self::INTEGERS, true) => is_numeric($typed[$member]) ? (int) $typed[$member] : ($typed[$member] === '' ? null : $typed[$member]),
                default => $typed[$member] === '' ? null : $typed[$member],
            };
        }
        if (isset($typed['gather'])) {
            $kpi['gather'] = $typed['gather'] === '' ? null : array_filter(['method' => $typed['gather'], 'weight' => $typed['weightedBy'] ?? ''], fn (string $member): bool => $member !== '');
        }
        if (isset($typed['drivers'])) {
            $kpi['drivers'] = self::codes($typed['drivers']);
        }
        foreach (['green', 'amber', 'red'] as $colour) {
            $member = 'text'.ucfirst($colour);
            if (isset($typed[$member])) {
                $texts = is_array($kpi['texts'] ?? null) ? $kpi['texts'] : [];
                unset($texts[$colour]);
                $kpi['texts'] = $typed[$member] === '' ? $texts : [...$texts, $colour => $typed[$member]];
            }
        }
        if (isset($typed['units'])) {
            $places = array_column($kpi['units'] ?? [], null, 'unit');
            $kpi['units'] = array_map(fn (string $code): array => $places[$code] ?? ['unit' => $code], self::codes($typed['units']));
        }
        $rule = [];
        foreach (self::RULE as $member) {
            $cell = $typed['rule'.ucfirst($member)] ?? '';
            if ($cell !== '') {
                $rule[$member] = $member === 'periods' && is_numeric($cell) ? (int) $cell : $cell;
            }
        }
        if ($rule !== []) {
            $rules = array_filter($kpi['rules'] ?? [], fn (array $each): bool => $each['from'] !== ($rule['from'] ?? ''));
            $kpi['rules'] = [...array_values($rules), $rule];
        }
        if (($kpi['texts'] ?? null) === []) {
            unset($kpi['texts']);
        }

        return array_filter($kpi, fn (mixed $member): bool => $member !== null);
    }

    /** @return list<string> */
    private static function codes(string $cell): array
    {
        return array_values(array_filter(array_map(trim(...), explode(' ', str_replace([';', ','], ' ', $cell))), fn (string $code): bool => $code !== ''));
    }

    private static function text(mixed $value): string
    {
        return match (true) {
            is_bool($value) => $value ? 'yes' : 'no',
            is_scalar($value) => (string) $value,
            default => '',
        };
    }
}
