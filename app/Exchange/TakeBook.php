<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Exchange\Views\BookPreview;
use App\Exchange\Views\TakenSheet;
use App\Models\User;
use App\Support\Trail;
use App\Tables\BadTable;
use App\Tables\BookSheet;
use App\Tables\NumberCell;
use App\Tables\Table;
use Illuminate\Contracts\Container\Container;
use Illuminate\Support\Str;

/**
 * Takes a workbook of an organisation in, sheet by sheet in the order in which one needs the other. What it would do is
 * found by doing it and taking it back: the same code, and nobody sees anything of it.
 */
final readonly class TakeBook
{
    public function __construct(private Container $container, private Trail $trail) {}

    /**
     * @param  bool  $keeps  whether it stays; otherwise it is only looked at
     *
     * @throws BadTable where it cannot be read
     */
    public function __invoke(string $path, string $upload, bool $keeps, User $user): BookPreview
    {
        $taken = [];
        try {
            $this->trail->within((string) Str::uuid(), '', function () use ($path, $keeps, $user, &$taken): void {
                $taken = $this->take($path, $user);
                if (! $keeps || array_filter($taken, fn (TakenSheet $sheet): bool => $sheet->refused > 0) !== []) {
                    throw new TakenBack;
                }
            });
            $applied = true;
        } catch (TakenBack) {
            $applied = false;
        }
        // What was read of the organisation while it was taken in is not there any longer, or is there from now on.
        $this->forget();

        return new BookPreview($upload, $applied, $taken);
    }

    /** @return list<TakenSheet> */
    private function take(string $path, User $user): array
    {
        $names = Table::open($path, '', Table::SHORT)->sheets();
        $taken = [];
        $this->forget();
        foreach ($this->container->tagged('book-sheets') as $sheet) {
            if ($sheet instanceof BookSheet && in_array($sheet->name(), $names, true)) {
                $rows = $this->rows(Table::open($path, $sheet->name()), $sheet);
                if ($rows !== []) {
                    $taken[] = TakenSheet::of($sheet->name(), $sheet->take($rows, $user));
                }
            }
            // The next one sees what this one made.
            $this->forget();
        }
        if ($taken === []) {
            throw new BadTable('The file has none of the sheets, or nothing in them. Take the empty workbook and fill it in.');
        }

        return $taken;
    }

    /** @return array<int, array<string, string|NumberCell>> by line */
    private function rows(Table $table, BookSheet $sheet): array
    {
        $known = array_combine(array_map(mb_strtolower(...), $sheet->head()), $sheet->head());
        $columns = null;
        $rows = [];
        foreach ($table->rows() as $line => $cells) {
            if ($columns === null) {
                $heads = array_map(fn (string|NumberCell $cell): string => $cell instanceof NumberCell ? '' : $known[mb_strtolower(trim($cell))] ?? '', $cells);
                // Explanations may stand above the head.
                $columns = in_array($sheet->head()[0], $heads, true) && in_array($sheet->head()[1], $heads, true) ? array_filter($heads, fn (string $head): bool => $head !== '') : null;

                continue;
            }
            $row = [];
            foreach ($columns as $at => $head) {
                $cell = $cells[$at] ?? '';
                $row[$head] = is_string($cell) ? (preg_replace('/\A\'(?=[=+\-@])/', '', $cell) ?? $cell) : $cell;
            }
            if (array_filter($row, fn (string|NumberCell $cell): bool => $cell instanceof NumberCell || trim($cell) !== '') !== []) {
                $rows[$line] = $row;
            }
        }

        return $rows;
    }

    private function forget(): void
    {
        if (method_exists($this->container, 'forgetScopedInstances')) {
            $this->container->forgetScopedInstances();
        }
    }
}
