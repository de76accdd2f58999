<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Illuminate\Support\Str;

/**
 * Reads units from a list that somebody typed or pasted: what stands further in belongs to what stands above it. From a
 * sheet the levels may stand in columns. A code may follow in brackets; otherwise one is made of the name.
 */
final readonly class UnitList
{
    public const MOST_UNITS = 2_000;

    private const MOST_NAME = 200;

    public const MOST_DEPTH = 12;

    /** Letters of a code that is made of a longer word. */
    private const LETTERS = 6;

    public function __construct(private Organisation $organisation) {}

    /**
     * @param  string  $below  what units below departments are called, `team`
     * @return list<PlannedUnit> a line each; blank lines are passed over
     */
    public function read(string $text, string $below): array
    {
        $root = array_values($this->organisation->units())[0] ?? throw new \LogicException('There is an organisation.');
        $byCode = [];
        $named = [];
        foreach ($this->organisation->units() as $unit) {
            $byCode[mb_strtolower($unit->code)] = $unit;
            $named[$this->place($unit->parent_id === null ? null : $this->organisation->unit($unit->parent_id)->code, $unit->name)] = $unit;
        }
        $planned = [];
        // Codes that units had before still find them.
        $taken = array_fill_keys(array_keys($byCode), true) + array_fill_keys($this->organisation->formerCodes(), true);
        /** @var list<array{int, string}> $above  how far in the units stand that a line may belong to, and their codes */
        $above = [[-1, $root->code]];
        foreach ($this->lines($text) as $number => [$indent, $name, $code]) {
            while (count($above) > 1 && $above[count($above) - 1][0] >= $indent) {
                array_pop($above);
            }
            $parent = $above[count($above) - 1][1];
            $isRoot = $planned === [] && mb_strtolower($name) === mb_strtolower($root->name);
            $there = $isRoot ? $root : $named[$this->place($parent, $name)] ?? null;
            $depth = $isRoot ? 0 : count($above);
            $made = $there->code ?? ($code === '' ? $this->code($name, $parent, $root->code, $taken) : $code);
            $problem = match (true) {
                $there !== null => '',
                mb_strlen($name) > self::MOST_NAME => 'A name has up to '.self::MOST_NAME.' characters.',
                $depth > self::MOST_DEPTH => 'The tree goes up to '.self::MOST_DEPTH.' levels down.',
                preg_match('/\A[A-Za-z][A-Za-z0-9_.-]{0,63}\z/', $made) !== 1 => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
                isset($taken[mb_strtolower($made)]) => "The code {$made} is taken".(isset($byCode[mb_strtolower($made)]) ? " by {$byCode[mb_strtolower($made)]->name}" : ' in this list').'.',
                default => '',
            };
            $planned[] = $unit = new PlannedUnit(
                $number,
                $there->name ?? $name,
                $made,
                $there->kind ?? ($depth === 1 ? 'department' : $below),
                $depth,
                $isRoot ? null : $parent,
                $there !== null,
                $problem,
            );
            $taken[mb_strtolower($made)] = true;
            if ($unit->isNew()) {
                $named[$this->place($parent, $name)] = new Unit(['code' => $made, 'name' => $name, 'kind' => $unit->kind]);
            }
            if ($isRoot) {
                $above = [[$indent, $root->code]];
            } else {
                $above[] = [$indent, $made];
            }
        }

        return $planned;
    }

    /** @return iterable<int, array{int, string, string}> by line: how far in it stands, its name, its code */
    private function lines(string $text): iterable
    {
        foreach (Str::of($text)->split('/\R/u') as $index => $line) {
            // A bullet is no name, and is not further in than what stands behind it.
            if (preg_match('/\A([\s\x{00A0}]*)(?:[-*•–]\s+)?(.*?)[\s\x{00A0}]*\z/u', $line, $match) !== 1 || $match[2] === '') {
                continue;
            }
            $indent = array_sum(array_map(fn (string $blank): int => $blank === "\t" ? 4 : 1, mb_str_split($match[1])));
            if (preg_match('/\A(.+?)\s*(?:\(([^()]+)\)|\t+([^\t]+))\z/u', $match[2], $coded) === 1) {
                yield $index + 1 => [$indent, Str::squish($coded[1]), trim($coded[3] ?? $coded[2] ?? '')];
            } else {
                yield $index + 1 => [$indent, Str::squish($match[2]), ''];
            }
        }
    }

    /** @param  array<string, true>  $taken  in small letters */
    private function code(string $name, string $parent, string $root, array $taken): string
    {
        $words = Str::of($name)->ascii()->upper()->split('/[^A-Z0-9]+/', -1, PREG_SPLIT_NO_EMPTY)->all();
        $word = $words[0] ?? 'UNIT';
        $word = preg_match('/\A[A-Z]/', $word) === 1 ? $word : "U{$word}";
        $short = strlen($word) > self::LETTERS + 2 ? substr($word, 0, self::LETTERS) : $word;
        $wanted = [$short, ...($parent === $root ? [] : [substr("{$parent}-".substr($word, 0, 3), 0, 60)]), implode('-', array_slice($words, 0, 3))];
        for ($number = 2; ; $number++) {
            foreach ($wanted as $code) {
                if ($code !== '' && strlen($code) <= 64 && ! isset($taken[mb_strtolower($code)])) {
                    return $code;
                }
            }
            $wanted = ["{$short}-{$number}"];
        }
    }

    private function place(?string $parent, string $name): string
    {
        return mb_strtolower("{$parent}\n{$name}");
    }
}
