<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use InvalidArgumentException;

/**
 * A JSON text (RFC 8259) whose outermost object is read member by member and whose long arrays item by item, so that
 * a large workbook is never held decoded as a whole.
 */
final class JsonText
{
    private const BLANK = " \t\n\r";

    private const STRING = '"(?:[^"\\\\\x00-\x1f]++|\\\\(?:["\\\\\/bfnrt]|u[0-9a-fA-F]{4}))*+"';

    /** An object without others inside it, which is what almost every item is. */
    private const FLAT_OBJECT = '/\G\{(?:[^{}\[\]"]++|'.self::STRING.')*+\}/';

    private const TOKEN = '/\G(?:'.self::STRING.'|-?(?:0|[1-9][0-9]*)(?:\.[0-9]+)?(?:[eE][+-]?[0-9]+)?(?![0-9.a-zA-Z_])|(?:true|false|null)(?![0-9a-zA-Z_])|[{}\[\]:,])/';

    private readonly string $text;

    public function __construct(string $text)
    {
        $this->text = str_starts_with($text, "\u{FEFF}") ? substr($text, 3) : $text;
    }

    /**
     * Where the value of each member of the outermost object begins.
     *
     * @return array{array<string, int>, list<string>} by name, and the names that stand more than once
     *
     * @throws InvalidArgumentException when the text is not JSON, or no object
     */
    public function members(): array
    {
        if (! mb_check_encoding($this->text, 'UTF-8')) {
            $sound = 0;
            foreach (explode("\n", $this->text) as $line) {
                if (! mb_check_encoding($line, 'UTF-8')) {
                    break;
                }
                $sound++;
            }
            throw new InvalidArgumentException('line '.($sound + 1).': The text is not UTF-8.');
        }
        $at = $this->skipBlank(0);
        if (($this->text[$at] ?? '') !== '{') {
            if ($this->firstError() === null) {
                throw new InvalidArgumentException('line 1: A workbook is a JSON object.');
            }
            $this->refuse();
        }
        $members = [];
        $twice = [];
        $at = $this->skipBlank($at + 1);
        while (($this->text[$at] ?? '') !== '}') {
            if (preg_match('/\G'.self::STRING.'/', $this->text, $match, 0, $at) !== 1) {
                $this->refuse();
            }
            $name = json_decode($match[0]);
            $at = $this->skipBlank($at + strlen($match[0]));
            if (! is_string($name) || ($this->text[$at] ?? '') !== ':') {
                $this->refuse();
            }
            $at = $this->skipBlank($at + 1);
            if (isset($members[$name])) {
                $twice[] = $name;
            }
            $members[$name] = $at;
            $at = $this->skipBlank($this->end($at));
            if (($this->text[$at] ?? '') === ',') {
                $at = $this->skipBlank($at + 1);
                if (($this->text[$at] ?? '') === '}') {
                    $this->refuse();
                }
            } elseif (($this->text[$at] ?? '') !== '}') {
                $this->refuse();
            }
        }
        if ($this->skipBlank($at + 1) !== strlen($this->text)) {
            $this->refuse();
        }

        return [$members, $twice];
    }

    public function isArray(int $at): bool
    {
        return ($this->text[$at] ?? '') === '[';
    }

    /** The value that begins there, with objects as objects. */
    public function value(int $at): mixed
    {
        return $this->decode(substr($this->text, $at, $this->end($at) - $at));
    }

    /**
     * The items of the array that begins there, each as its text.
     *
     * @return iterable<int, string>
     */
    public function items(int $at): iterable
    {
        $at = $this->skipBlank($at + 1);
        $index = 0;
        while (($this->text[$at] ?? '') !== ']') {
            $end = $this->end($at);
            yield $index++ => substr($this->text, $at, $end - $at);
            $at = $this->skipBlank($end);
            if (($this->text[$at] ?? '') === ',') {
                $at = $this->skipBlank($at + 1);
                if (($this->text[$at] ?? '') === ']') {
                    $this->refuse();
                }
            } elseif (($this->text[$at] ?? '') !== ']') {
                $this->refuse();
            }
        }
    }

    /** An item as objects, or as arrays by name. */
    public function decode(string $item, bool $asArrays = false): mixed
    {
        $value = json_decode($item, $asArrays);
        if ($value === null && trim($item, self::BLANK) !== 'null') {
            if (json_last_error() === JSON_ERROR_UTF16) {
                throw new InvalidArgumentException($this->line($item).': Half of a character stands alone: \\ud800 to \\udfff come in pairs.');
            }
            $this->refuse();
        }
        // A float would hold infinity, or nothing, instead of what was written.
        if (preg_match('/[0-9][eE][+-]?[0-9]{3}/', $item) === 1 && preg_match('/-?[0-9][0-9.]*[eE][+-]?[0-9]{3,}/', (string) preg_replace('/'.self::STRING.'/', '""', $item), $number) === 1) {
            throw new InvalidArgumentException($this->line($item).": {$number[0]} is beyond what a number here can be.");
        }

        return $value;
    }

    /** The line in which an item stands, for a message. */
    private function line(string $item): string
    {
        return 'line '.(substr_count($this->text, "\n", 0, (int) strpos($this->text, $item)) + 1);
    }

    /** Where the value that begins there ends; what is inside is checked when it is decoded. */
    private function end(int $at): int
    {
        $first = $this->text[$at] ?? '';
        if ($first !== '{' && $first !== '[') {
            if (preg_match(self::TOKEN, $this->text, $match, 0, $at) !== 1 || str_contains('{}[]:,', $match[0])) {
                $this->refuse();
            }

            return $at + strlen($match[0]);
        }
        $depth = 0;
        $length = strlen($this->text);
        while ($at < $length) {
            $at += strcspn($this->text, '"{}[]', $at);
            $mark = $this->text[$at] ?? '';
            if ($mark === '"') {
                if (preg_match('/\G'.self::STRING.'/', $this->text, $match, 0, $at) !== 1) {
                    $this->refuse();
                }
                $at += strlen($match[0]);

                continue;
            }
            if ($mark === '{' && preg_match(self::FLAT_OBJECT, $this->text, $match, 0, $at) === 1) {
                $at += strlen($match[0]);
                if ($depth === 0) {
                    return $at;
                }

                continue;
            }
            $depth += $mark === '{' || $mark === '[' ? 1 : -1;
            $at++;
            if ($depth === 0) {
                return $at;
            }
        }
        $this->refuse();
    }

    private function skipBlank(int $at): int
    {
        return $at + strspn($this->text, self::BLANK, $at);
    }

    /**
     * Reads the text token by token to say in which line it stops being JSON.
     *
     * @throws InvalidArgumentException
     */
    private function refuse(): never
    {
        $at = $this->firstError();
        if ($at === null) {
            throw new InvalidArgumentException('line 1: The text is nested too deeply.');
        }
        $line = substr_count($this->text, "\n", 0, min($at, strlen($this->text))) + 1;
        throw new InvalidArgumentException("line {$line}: ".($at >= strlen($this->text)
            ? 'The text ends too early to be JSON.'
            : 'This is not JSON: '.json_encode(mb_strcut(substr($this->text, $at, 40), 0, 20), JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE).' is not expected here.'));
    }

    /** Where the text stops being JSON; null when it is JSON throughout. */
    private function firstError(): ?int
    {
        $at = $this->skipBlank(0);
        /** @var list<string> $open */
        $open = [];
        $expected = 'value';
        while ($expected !== 'end') {
            if (preg_match(self::TOKEN, $this->text, $match, 0, $at) !== 1) {
                return $at;
            }
            $token = $match[0];
            $inside = $open === [] ? '' : $open[count($open) - 1];
            $kind = match (true) {
                $token[0] === '"' => 'string',
                str_contains('{}[]:,', $token) => $token,
                default => 'scalar',
            };
            $next = match (true) {
                in_array($expected, ['value', 'value or ]'], true) && in_array($kind, ['string', 'scalar'], true) => 'separator',
                in_array($expected, ['value', 'value or ]'], true) && $kind === '{' => 'name or }',
                in_array($expected, ['value', 'value or ]'], true) && $kind === '[' => 'value or ]',
                in_array($expected, ['name', 'name or }'], true) && $kind === 'string' => 'colon',
                $expected === 'colon' && $kind === ':' => 'value',
                $expected === 'separator' && $kind === ',' => $inside === '{' ? 'name' : 'value',
                ($expected === 'value or ]' || ($expected === 'separator' && $inside === '[')) && $kind === ']',
                ($expected === 'name or }' || ($expected === 'separator' && $inside === '{')) && $kind === '}' => 'separator',
                default => null,
            };
            if ($next === null) {
                return $at;
            }
            if ($kind === '{' || $kind === '[') {
                $open[] = $kind;
            } elseif ($kind === '}' || $kind === ']') {
                array_pop($open);
            }
            $expected = $next === 'separator' && $open === [] ? 'end' : $next;
            $at = $this->skipBlank($at + strlen($token));
        }

        return $at < strlen($this->text) ? $at : null;
    }
}
