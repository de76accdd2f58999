<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Symfony\Component\ExpressionLanguage\Lexer;
use Symfony\Component\ExpressionLanguage\Node\BinaryNode;
use Symfony\Component\ExpressionLanguage\Node\ConstantNode;
use Symfony\Component\ExpressionLanguage\Node\FunctionNode;
use Symfony\Component\ExpressionLanguage\Node\NameNode;
use Symfony\Component\ExpressionLanguage\Node\Node;
use Symfony\Component\ExpressionLanguage\Node\UnaryNode;
use Symfony\Component\ExpressionLanguage\Parser;
use Symfony\Component\ExpressionLanguage\SyntaxError;
use Symfony\Component\ExpressionLanguage\Token;
use Symfony\Component\ExpressionLanguage\TokenStream;

/**
 * Arithmetic over names, calculated on exact decimals: `+ - * / ( )`, numbers and `min max abs sum avg`, and functions
 * that take names alone. What a name stands for, and what such a function makes of names, is for whoever reads it.
 *
 * The expression language's lexer and parser read the text; nothing else of that language is allowed, and none of it is
 * run.
 */
final readonly class Arithmetic
{
    private const FUNCTIONS = ['min', 'max', 'abs', 'sum', 'avg'];

    private const PUNCTUATION = ['(', ')', ','];

    private const OPERATORS = ['+', '-', '*', '/'];

    /**
     * @param  list<array{string, list<string>}>  $uses  what stands in it, in the order of the text: a function of names and its names, or '' and a name
     * @param  array<string, int>  $places  where each name stands first: the character, from 1
     * @param  array<string, int>  $ofNames
     */
    private function __construct(private Node $root, public array $uses, private array $places, private array $ofNames) {}

    /**
     * @param  array<string, int>  $ofNames  the functions that take names alone, and how many
     * @param  string  $noun  what a name is called, `KPI code`
     *
     * @throws FormulaProblem when it cannot be read
     */
    public static function parse(string $text, array $ofNames, string $noun): self
    {
        // Printed signs for the typed ones; both are one character long, so positions stay those of the text.
        $plain = str_replace(["\u{2212}", "\u{00D7}", "\u{00F7}"], ['-', '*', '/'], $text);
        $at = fn (int $byte): int => mb_strlen(substr($plain, 0, max(0, $byte - 1))) + 1;
        try {
            $tokens = self::tokens($plain, $at, $noun);
            $functions = array_fill_keys([...self::FUNCTIONS, ...array_keys($ofNames)], []);
            $root = (new Parser($functions))->parse(new TokenStream($tokens, $plain), [], Parser::IGNORE_UNKNOWN_VARIABLES);
        } catch (SyntaxError $error) {
            preg_match('/\A(.*?)\.? around position (\d+)/s', $error->getMessage(), $match);
            throw new FormulaProblem(self::words($match[1] ?? $error->getMessage()), $at((int) ($match[2] ?? 1)));
        }
        $calls = [];
        $named = [];
        foreach ($tokens as $index => $token) {
            if ($token->type === Token::NAME_TYPE && ($tokens[$index + 1] ?? null)?->value === '(') {
                $calls[] = $at((int) $token->cursor);
            }
            if ($token->type === Token::NAME_TYPE || $token->type === Token::STRING_TYPE) {
                $named[(string) $token->value] ??= $at((int) $token->cursor);
            }
        }
        $uses = [];
        self::check($root, $uses, $calls, $ofNames, $noun);

        return new self($root, $uses, $named, $ofNames);
    }

    /** Where a name stands first: the character, from 1; null where it does not. */
    public function placeOf(string $name): ?int
    {
        return $this->places[$name] ?? null;
    }

    /**
     * @param  \Closure(string, list<string>): Exact  $worth  what a function of names gives, or under '' a name
     *
     * @throws NoValue when a divisor is zero, or the closure has none
     */
    public function evaluate(\Closure $worth): Exact
    {
        return $this->fold(new ExactAlgebra($worth));
    }

    /**
     * Carries it out, in whatever it is to be carried out.
     *
     * @template Term
     *
     * @param  Algebra<Term>  $algebra
     * @return Term
     */
    public function fold(Algebra $algebra): mixed
    {
        return $this->term($this->root, $algebra);
    }

    /**
     * The tokens of the language that are allowed here, with numbers as they were written: as floats they would lose
     * digits.
     *
     * @param  callable(int): int  $at
     * @return list<Token>
     */
    private static function tokens(string $text, callable $at, string $noun): array
    {
        $comment = strpos($text, '/*');
        if ($comment !== false) {
            throw new FormulaProblem('A formula has no comments.', $at($comment + 1));
        }
        $tokens = [];
        $stream = (new Lexer)->tokenize($text);
        while (true) {
            $token = $stream->current;
            $place = $at((int) $token->cursor);
            $allowed = match ($token->type) {
                Token::OPERATOR_TYPE => in_array($token->value, self::OPERATORS, true),
                Token::PUNCTUATION_TYPE => in_array($token->value, self::PUNCTUATION, true),
                Token::NAME_TYPE => preg_match('/\A(?!(?:true|false|null)\z)[a-z][a-z0-9_]*\z/i', (string) $token->value) === 1,
                default => true,
            };
            if (! $allowed) {
                throw new FormulaProblem("'{$token->value}' is not understood here.", $place);
            }
            if ($token->type === Token::NUMBER_TYPE) {
                preg_match('/[0-9_.]+(?:[eE][+-]?[0-9_]+)?/A', $text, $match, 0, (int) $token->cursor - 1);
                $written = $match[0] ?? '';
                if (preg_match('/\A\d+(\.\d+)?\z/', $written) !== 1) {
                    throw new FormulaProblem("'{$written}' is not a number.", $place);
                }
                $token = new Token(Token::NUMBER_TYPE, $written, $token->cursor);
            }
            if ($token->type === Token::STRING_TYPE && preg_match('/\A[A-Za-z][A-Za-z0-9_.-]*\z/', (string) $token->value) !== 1) {
                throw new FormulaProblem("'{$token->value}' is not a {$noun}.", $place);
            }
            $tokens[] = $token;
            if ($token->type === Token::EOF_TYPE) {
                return $tokens;
            }
            $stream->next();
        }
    }

    /**
     * Collects what is named and refuses calls with the wrong arguments.
     *
     * @param  list<array{string, list<string>}>  $uses
     * @param  list<int>  $calls  places of the function names, which are met here in the order in which they were written
     * @param  array<string, int>  $ofNames
     */
    private static function check(Node $node, array &$uses, array &$calls, array $ofNames, string $noun): void
    {
        $own = self::plainName($node);
        if ($own !== null) {
            $uses[] = ['', [$own]];
        } elseif ($node instanceof FunctionNode) {
            $place = array_shift($calls);
            $name = self::name($node);
            $arguments = self::arguments($node);
            $count = $ofNames[$name] ?? ($name === 'abs' ? 1 : null);
            if ($count === null ? $arguments === [] : count($arguments) !== $count) {
                throw new FormulaProblem("{$name}() takes ".($count === null ? 'at least one argument.' : self::counted($count, 'argument').'.'), $place);
            }
            if (isset($ofNames[$name])) {
                $uses[] = [$name, array_map(fn (Node $argument): string => self::plainName($argument) ?? throw new FormulaProblem("{$name}() takes ".self::counted(count($arguments), $noun).'.', $place), $arguments)];
            } else {
                foreach ($arguments as $argument) {
                    self::check($argument, $uses, $calls, $ofNames, $noun);
                }
            }
        } else {
            foreach (self::children($node) as $child) {
                self::check($child, $uses, $calls, $ofNames, $noun);
            }
        }
    }

    /**
     * @template Term
     *
     * @param  Algebra<Term>  $algebra
     * @return Term
     */
    private function term(Node $node, Algebra $algebra): mixed
    {
        $own = self::plainName($node);
        if ($own !== null) {
            return $algebra->named('', [$own]);
        }
        if ($node instanceof ConstantNode) {
            return $algebra->number(self::text($node->attributes['value'] ?? null));
        }
        if ($node instanceof UnaryNode) {
            $term = $this->term(self::children($node)[0], $algebra);

            return ($node->attributes['operator'] ?? null) === '-' ? $algebra->negated($term) : $term;
        }
        if ($node instanceof BinaryNode) {
            [$left, $right] = array_map(fn (Node $side): mixed => $this->term($side, $algebra), self::children($node));

            return match ($node->attributes['operator'] ?? null) {
                '+' => $algebra->plus($left, $right),
                '-' => $algebra->plus($left, $algebra->negated($right)),
                '*' => $algebra->times($left, $right),
                default => $algebra->over($left, $right),
            };
        }
        /** @var FunctionNode $node what the parser was allowed to read leaves nothing else */
        $name = self::name($node);
        $arguments = self::arguments($node);
        if (isset($this->ofNames[$name])) {
            return $algebra->named($name, array_map(fn (Node $argument): string => (string) self::plainName($argument), $arguments));
        }
        $terms = array_map(fn (Node $argument): mixed => $this->term($argument, $algebra), $arguments);
        $first = array_shift($terms) ?? throw new \LogicException('What was read has an argument.');
        $total = fn (): mixed => array_reduce($terms, $algebra->plus(...), $first);

        return match ($name) {
            'min' => $algebra->least([$first, ...$terms]),
            'max' => $algebra->most([$first, ...$terms]),
            'abs' => $algebra->size($first),
            'avg' => $algebra->over($total(), $algebra->number((string) (count($terms) + 1))),
            default => $total(),
        };
    }

    private static function counted(int $count, string $noun): string
    {
        return $count === 1 ? "one {$noun}" : "two {$noun}s";
    }

    /** The name that the node is; null when it is anything else. */
    private static function plainName(Node $node): ?string
    {
        $text = match (true) {
            $node instanceof NameNode => self::text($node->attributes['name'] ?? null),
            $node instanceof ConstantNode => self::text($node->attributes['value'] ?? null),
            default => '',
        };

        return $text === '' || ctype_digit($text[0]) ? null : $text;
    }

    private static function name(FunctionNode $node): string
    {
        return self::text($node->attributes['name'] ?? null);
    }

    /** @return list<Node> */
    private static function arguments(FunctionNode $node): array
    {
        return self::children(self::children($node)[0]);
    }

    /** @return list<Node> */
    private static function children(Node $node): array
    {
        return array_values(array_filter($node->nodes, fn (mixed $child): bool => $child instanceof Node));
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }

    private static function words(string $message): string
    {
        return match (true) {
            str_contains($message, 'Unexpected token "end of expression"') => 'The formula ends too early.',
            preg_match('/The function "(prior|target)" does not exist/', $message, $match) === 1 => "{$match[1]}() stands in formulas of targets only.",
            preg_match('/Unexpected token "[^"]*" of value "([^"]*)"/', $message, $match) === 1 => "'{$match[1]}' is not expected here.",
            default => rtrim($message, '.').'.',
        };
    }
}
