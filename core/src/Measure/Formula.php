<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
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
 * Arithmetic over KPI codes of the same unit and period, calculated on exact decimals.
 *
 * `+ - * / ( )`, numbers and `min max abs sum avg`; `orzero(X)` counts a missing X as 0; `below(X)` is X gathered over
 * the units below. In a formula of targets, `prior(X)` is X a year earlier and `target(X)` its target. A code that is no
 * plain word, such as one with a hyphen, stands in double quotes. The expression language's lexer and parser read the
 * text; nothing else of that language is allowed, and none of it is run.
 */
final readonly class Formula
{
    private const FUNCTIONS = ['min', 'max', 'abs', 'sum', 'avg', 'orzero'];

    /** How many arguments a function takes: exactly one, where not any number from one. */
    private const OF_ONE = ['abs', 'orzero', 'below', 'prior', 'target'];

    /** These take a KPI's code and nothing else. */
    private const OF_CODE = ['orzero', 'below', 'prior', 'target'];

    private const PUNCTUATION = ['(', ')', ','];

    private const OPERATORS = ['+', '-', '*', '/'];

    /**
     * @param  non-empty-array<string, Operand>  $operands  by their keys, in the order in which they appear
     * @param  array<string, int>  $places  where each KPI is named first, by its code: the character, from 1
     */
    private function __construct(public string $text, private Node $root, public array $operands, private array $places) {}

    /**
     * Of figures.
     *
     * @throws FormulaProblem when it cannot be read, or names no KPI
     */
    public static function parse(string $text): self
    {
        return self::read($text, OperandOf::functions(isTarget: false));
    }

    /**
     * Of targets, which may be made of last year's figures and of other targets.
     *
     * @throws FormulaProblem when it cannot be read, or names no KPI
     */
    public static function ofTarget(string $text): self
    {
        return self::read($text, OperandOf::functions(isTarget: true));
    }

    /** @param  list<string>  $operands  the functions that say what of a KPI is taken */
    private static function read(string $text, array $operands): self
    {
        // Printed signs for the typed ones; both are one character long, so positions stay those of the text.
        $plain = str_replace(["\u{2212}", "\u{00D7}", "\u{00F7}"], ['-', '*', '/'], $text);
        $at = fn (int $byte): int => mb_strlen(substr($plain, 0, max(0, $byte - 1))) + 1;
        try {
            $tokens = self::tokens($plain, $at);
            $functions = array_fill_keys([...self::FUNCTIONS, ...$operands], []);
            $root = (new Parser($functions))->parse(new TokenStream($tokens, $plain), [], Parser::IGNORE_UNKNOWN_VARIABLES);
        } catch (SyntaxError $error) {
            preg_match('/\A(.*?)\.? around position (\d+)/s', $error->getMessage(), $match);
            throw new FormulaProblem(self::words($match[1] ?? $error->getMessage()), $at((int) ($match[2] ?? 1)));
        }
        $places = [];
        foreach ($tokens as $index => $token) {
            if ($token->type === Token::NAME_TYPE && ($tokens[$index + 1] ?? null)?->value === '(') {
                $places[] = $at((int) $token->cursor);
            }
        }
        $operands = [];
        self::check($root, $operands, $places);
        if ($operands === []) {
            throw new FormulaProblem('The formula names no KPI.', null);
        }

        $named = [];
        foreach ($tokens as $token) {
            if ($token->type === Token::NAME_TYPE || $token->type === Token::STRING_TYPE) {
                $named[(string) $token->value] ??= $at((int) $token->cursor);
            }
        }

        return new self($text, $root, $operands, $named);
    }

    /** Where the formula first names the KPI: the character, from 1; null where it does not. */
    public function placeOf(string $code): ?int
    {
        return $this->places[$code] ?? null;
    }

    /**
     * @param  array<string, Exact|null>  $figures  by the keys of the operands
     *
     * @throws NoValue when an operand is missing or a divisor is zero
     */
    public function evaluate(array $figures): Exact
    {
        return self::value($this->root, $figures);
    }

    /**
     * The tokens of the language that are allowed here, with numbers as they were written: as floats they would lose
     * digits.
     *
     * @param  callable(int): int  $at
     * @return list<Token>
     */
    private static function tokens(string $text, callable $at): array
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
                throw new FormulaProblem("'{$token->value}' is not a KPI code.", $place);
            }
            $tokens[] = $token;
            if ($token->type === Token::EOF_TYPE) {
                return $tokens;
            }
            $stream->next();
        }
    }

    /**
     * Collects the operands and refuses calls with the wrong arguments.
     *
     * @param  array<string, Operand>  $operands
     * @param  list<int>  $places  of the function names, which are met here in the order in which they were written
     */
    private static function check(Node $node, array &$operands, array &$places): void
    {
        $code = self::code($node);
        if ($code !== null) {
            self::note($operands, new Operand($code));
        } elseif ($node instanceof FunctionNode) {
            $place = array_shift($places);
            $name = self::name($node);
            $arguments = self::arguments($node);
            if (in_array($name, self::OF_ONE, true) ? count($arguments) !== 1 : $arguments === []) {
                throw new FormulaProblem("{$name}() takes ".(in_array($name, self::OF_ONE, true) ? 'one argument.' : 'at least one argument.'), $place);
            }
            if (in_array($name, self::OF_CODE, true)) {
                $code = self::code($arguments[0]) ?? throw new FormulaProblem("{$name}() takes one KPI code.", $place);
                self::note($operands, new Operand($code, OperandOf::tryFrom($name) ?? OperandOf::Here, $name === 'orzero'));
            } else {
                foreach ($arguments as $argument) {
                    self::check($argument, $operands, $places);
                }
            }
        } else {
            foreach (self::children($node) as $child) {
                self::check($child, $operands, $places);
            }
        }
    }

    /**
     * An operand that is named plainly somewhere must be there, whatever stands in orzero() elsewhere.
     *
     * @param  array<string, Operand>  $operands
     */
    private static function note(array &$operands, Operand $operand): void
    {
        $known = $operands[$operand->key()] ?? null;
        if ($known === null || $known->orZero) {
            $operands[$operand->key()] = $operand;
        }
    }

    /** @param  array<string, Exact|null>  $figures */
    private static function value(Node $node, array $figures): Exact
    {
        $code = self::code($node);
        if ($code !== null) {
            return $figures[$code] ?? throw new NoValue("{$code} has no figure");
        }
        if ($node instanceof ConstantNode) {
            return Exact::of(BigDecimal::of(self::text($node->attributes['value'] ?? null)));
        }
        if ($node instanceof UnaryNode) {
            $figure = self::value(self::children($node)[0], $figures);

            return ($node->attributes['operator'] ?? null) === '-' ? $figure->negated() : $figure;
        }
        if ($node instanceof BinaryNode) {
            [$left, $right] = array_map(fn (Node $side): Exact => self::value($side, $figures), self::children($node));

            return match ($node->attributes['operator'] ?? null) {
                '+' => $left->plus($right),
                '-' => $left->minus($right),
                '*' => $left->times($right),
                default => $right->isZero() ? throw new NoValue('the formula divides by zero') : $left->dividedBy($right)->givenOut(),
            };
        }
        /** @var FunctionNode $node what the parser was allowed to read leaves nothing else */
        $name = self::name($node);
        $arguments = self::arguments($node);
        if (in_array($name, self::OF_CODE, true)) {
            $key = (new Operand((string) self::code($arguments[0]), OperandOf::tryFrom($name) ?? OperandOf::Here))->key();

            return $figures[$key] ?? throw new NoValue("{$key} has no figure");
        }
        /** @var non-empty-list<Exact> $values */
        $values = array_map(fn (Node $argument): Exact => self::value($argument, $figures), $arguments);

        return match ($name) {
            'min' => Accumulation::Minimum->combine($values),
            'max' => Accumulation::Maximum->combine($values),
            'abs' => $values[0]->abs(),
            'avg' => Accumulation::Mean->combine($values)->givenOut(),
            default => Accumulation::Sum->combine($values),
        };
    }

    /** The KPI code that the node is; null when it is anything else. */
    private static function code(Node $node): ?string
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
