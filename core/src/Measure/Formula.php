<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * Arithmetic over KPI codes of the same unit and period ({@see Arithmetic}). `orzero(X)` counts a missing X as 0;
 * `below(X)` is X gathered over the units below. In a formula of targets, `prior(X)` is X a year earlier and `target(X)`
 * its target. A code that is no plain word, such as one with a hyphen, stands in double quotes.
 */
final readonly class Formula
{
    private const OR_ZERO = 'orzero';

    /** @param  non-empty-array<string, Operand>  $operands  by their keys, in the order in which they appear */
    private function __construct(public string $text, private Arithmetic $arithmetic, public array $operands) {}

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

    /** @param  list<string>  $functions  that say what of a KPI is taken */
    private static function read(string $text, array $functions): self
    {
        $arithmetic = Arithmetic::parse($text, array_fill_keys([self::OR_ZERO, ...$functions], 1), 'KPI code');
        $operands = [];
        foreach ($arithmetic->uses as [$function, $names]) {
            $operand = self::operand($function, $names[0] ?? '');
            $known = $operands[$operand->key()] ?? null;
            // An operand that is named plainly somewhere must be there, whatever stands in orzero() elsewhere.
            if ($known === null || $known->orZero) {
                $operands[$operand->key()] = $operand;
            }
        }
        if ($operands === []) {
            throw new FormulaProblem('The formula names no KPI.', null);
        }

        return new self($text, $arithmetic, $operands);
    }

    private static function operand(string $function, string $code): Operand
    {
        return new Operand($code, OperandOf::tryFrom($function) ?? OperandOf::Here, $function === self::OR_ZERO);
    }

    /** Where the formula first names the KPI: the character, from 1; null where it does not. */
    public function placeOf(string $code): ?int
    {
        return $this->arithmetic->placeOf($code);
    }

    /**
     * @param  array<string, Exact|null>  $figures  by the keys of the operands
     *
     * @throws NoValue when an operand is missing or a divisor is zero
     */
    public function evaluate(array $figures): Exact
    {
        return $this->arithmetic->evaluate(function (string $function, array $names) use ($figures): Exact {
            $key = self::operand($function, $names[0] ?? '')->key();

            return $figures[$key] ?? throw new NoValue("{$key} has no figure");
        });
    }
}
