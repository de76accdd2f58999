<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;
use App\Models\User;
use App\Organisation\Organisation;
use App\People\Views\EntryLinkView;
use App\Tables\BookSheet;
use App\Tables\NumberCell;
use App\Tables\SheetOutcome;
use Illuminate\Validation\ValidationException;

/**
 * Who may come in and what they come to do. New ones are invited; nobody is blocked because they are not in the list.
 */
final readonly class PeopleSheet implements BookSheet
{
    public function __construct(private PeopleReader $reader, private Organisation $organisation, private SavePerson $save) {}

    public function name(): string
    {
        return 'People';
    }

    public function explanation(): string
    {
        return 'A line for each role of each person: analyst, head, owner, executive, reader, auditor or administrator, for the unit of that code and all below it. Who is new is invited. Who is not in the list stays.';
    }

    public function head(): array
    {
        return ['Name', 'E-mail', 'Role', 'Unit'];
    }

    public function figures(): array
    {
        return [];
    }

    public function rows(User $user): iterable
    {
        foreach ($this->reader->read() as $person) {
            foreach ($person->roles as $held) {
                yield [$person->name, $person->email, strtolower(Role::from($held->role)->words()), $held->unit];
            }
        }
    }

    public function take(array $rows, User $user): SheetOutcome
    {
        $outcome = new SheetOutcome;
        $text = 'Name;E-mail;Role;Unit';
        $lines = [];
        foreach ($rows as $line => $row) {
            $lines[] = $line;
            $cells = array_map(fn (string $column): string => ($row[$column] ?? '') instanceof NumberCell ? $row[$column]->text : ($row[$column] ?? ''), $this->head());
            $text .= "\n".implode(';', array_map(fn (string $cell): string => '"'.str_replace(["\r", "\n", '"'], ' ', $cell).'"', $cells));
        }
        foreach ((new PeopleList($this->organisation))->read($text) as $person) {
            $line = $lines[$person->line - 2] ?? 0;
            try {
                if ($person->what === 'new') {
                    $outcome->links[$person->wanted->email] = (new EntryLinkView($this->save->invite($person->wanted)))->link;
                } elseif ($person->what === 'changed' && $person->there !== null) {
                    $this->save->change($person->there, $person->wanted);
                }
                $outcome->count($person->what, $line, $person->problem);
            } catch (ValidationException $refused) {
                $outcome->count('refused', $line, $refused->getMessage());
            }
        }

        return $outcome;
    }
}
