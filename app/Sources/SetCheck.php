<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\DatabaseWorkbook;
use App\Support\Formats;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * Holds a record set against all rules of a workbook, in the company of the KPIs that are counted from it: the same
 * checks, in the same words, as when a workbook brings it.
 */
final readonly class SetCheck
{
    public function __construct(private DatabaseWorkbook $workbook) {}

    /**
     * @param  string|null  $replaces  code of the set whose place it takes
     * @return array<string, string> what is wrong, by field
     */
    public function __invoke(WantedSet $wanted, ?string $replaces): array
    {
        /** @var array{recordSets?: list<array{code: string}>, kpis?: list<array{name: string}>} $book */
        $book = json_decode(implode('', [...WorkbookWriter::json($this->workbook->definitions())]), true, flags: JSON_THROW_ON_ERROR);
        $sets = $book['recordSets'] ?? [];
        $at = $replaces === null ? count($sets) : array_search($replaces, array_column($sets, 'code'), true);
        $sets[$at] = $wanted->members();
        foreach ($sets as $index => $set) {
            if (($set['unitNames'] ?? null) === []) {
                unset($sets[$index]['unitNames']);
            }
        }
        try {
            Formats::reader()->read(json_encode([...$book, 'recordSets' => $sets], JSON_THROW_ON_ERROR));
        } catch (BadWorkbook $bad) {
            $found = [];
            foreach ($bad->problems as $problem) {
                if (preg_match('#\A/recordSets/(\d+)/?(.*)\z#', $problem->pointer, $match) === 1 && (int) $match[1] === $at) {
                    $found[$match[2] === '' ? 'name' : self::field($match[2])] ??= $problem->message;
                } elseif (preg_match('#\A/kpis/(\d+)#', $problem->pointer, $match) === 1) {
                    $found['fields'] ??= ($book['kpis'][(int) $match[1]]['name'] ?? 'A KPI')." is counted from it: {$problem->message}";
                }
            }

            return $found;
        }

        return [];
    }

    private static function field(string $pointer): string
    {
        return match ($pointer) {
            'covers/from' => 'coversFrom',
            'covers/to' => 'coversTo',
            default => str_starts_with($pointer, 'unitNames') ? 'unitNames' : str_replace('/', '.', $pointer),
        };
    }
}
