<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\User;
use App\Support\Conflict;
use App\Tables\BookSheet;
use App\Tables\NumberCell;
use App\Tables\SheetOutcome;
use Illuminate\Validation\ValidationException;

/**
 * The tree of units: new ones are made, others called, placed and weighted as the sheet says. What it leaves out stays.
 */
final readonly class UnitSheet implements BookSheet
{
    public function __construct(private Organisation $organisation, private SaveUnit $save) {}

    public function name(): string
    {
        return 'Units';
    }

    public function explanation(): string
    {
        return 'A line for each unit. The code tells it apart and may not change here. “Belongs to” is the code of the unit above it; the first line is the organisation itself. Units that are not in the list stay as they are.';
    }

    public function head(): array
    {
        return ['Code', 'Name', 'What it is', 'Belongs to', 'Weight'];
    }

    public function figures(): array
    {
        return [4];
    }

    public function rows(User $user): iterable
    {
        foreach ($this->organisation->units() as $unit) {
            yield [$unit->code, $unit->name, $unit->kind, $unit->parent_id === null ? '' : $this->organisation->unit($unit->parent_id)->code, WantedUnit::plain($unit->weight)];
        }
    }

    public function take(array $rows, User $user): SheetOutcome
    {
        $outcome = new SheetOutcome;
        $units = [];
        foreach ($this->organisation->units() as $unit) {
            $units[mb_strtolower($unit->code)] = $unit;
        }
        $root = array_values($units)[0] ?? throw new \LogicException('Whoever takes a workbook has an organisation.');
        foreach ($rows as $line => $row) {
            $text = fn (string $column): string => trim(($row[$column] ?? '') instanceof NumberCell ? $row[$column]->text : ($row[$column] ?? ''));
            [$code, $name, $weight] = [$text('Code'), $text('Name'), $text('Weight') === '' ? '1' : $text('Weight')];
            $there = $units[mb_strtolower($code)] ?? null;
            $above = $text('Belongs to') === '' ? $root : $units[mb_strtolower($text('Belongs to'))] ?? null;
            $kind = mb_strtolower($text('What it is') === '' ? ($there->kind ?? 'team') : $text('What it is'));
            $problem = match (true) {
                preg_match('/\A[A-Za-z][A-Za-z0-9_.-]{0,63}\z/', $code) !== 1 => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
                $name === '' || mb_strlen($name) > 200 => 'A name has from 1 to 200 characters.',
                mb_strlen($kind) > 24 => 'What it is has up to 24 characters.',
                preg_match('/\A\d{1,6}(\.\d{1,8})?\z/', $weight) !== 1 => 'A weight is a figure such as 1 or 2.5.',
                $above === null => "There is no unit {$text('Belongs to')} above it; list that one first.",
                default => '',
            };
            if ($problem !== '') {
                $outcome->count('refused', $line, $problem);

                continue;
            }
            try {
                if ($there === null) {
                    $units[mb_strtolower($code)] = $this->save->make($code, $name, $kind, $above, $weight);
                    $outcome->count('new', $line, '');
                } else {
                    $stands = WantedUnit::of($there);
                    $wanted = new WantedUnit($there->code, $name, $there->parent_id === null ? $there->kind : $kind, $there->parent_id === null ? null : $above->code, WantedUnit::plain($weight), $stands->rollUp);
                    $this->save->change($there, $wanted, $stands);
                    $outcome->count($wanted->is($stands) ? 'same' : 'changed', $line, '');
                }
            } catch (ValidationException|Conflict $refused) {
                $outcome->count('refused', $line, $refused->getMessage());
            }
        }

        return $outcome;
    }
}
