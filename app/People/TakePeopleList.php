<?php

declare(strict_types=1);

namespace App\People;

use App\Organisation\Organisation;
use App\Support\Trail;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Invites and changes everybody of a list, or nobody where a line of it is wrong.
 */
final readonly class TakePeopleList
{
    public function __construct(private SavePerson $save, private Trail $trail) {}

    /**
     * @return array<string, string> the secrets of the links of those who are invited, by e-mail address
     *
     * @throws ValidationException
     */
    public function __invoke(string $text): array
    {
        return $this->trail->within((string) Str::uuid(), '', function () use ($text): array {
            $links = [];
            $people = (new PeopleList(new Organisation))->read($text);
            foreach ($people as $person) {
                if ($person->what === 'refused') {
                    throw ValidationException::withMessages(['list' => "Line {$person->line}: {$person->problem}"]);
                }
            }
            foreach ($people as $person) {
                if ($person->there === null) {
                    $links[$person->wanted->email] = $this->save->invite($person->wanted);
                } elseif ($person->what === 'changed') {
                    $this->save->change($person->there, $person->wanted);
                }
            }

            return $links;
        });
    }
}
