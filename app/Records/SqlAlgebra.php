<?php

declare(strict_types=1);

namespace App\Records;

use Kybernet\Core\Measure\Algebra;

/**
 * Arithmetic as the text of a query. Decimals are exact in it, and a written division is rounded as the core rounds it:
 * half away from zero at 12 decimals, found with whole quotients.
 *
 * @implements Algebra<SqlTerm>
 */
final readonly class SqlAlgebra implements Algebra
{
    /** Ten to the decimals that a division gives, and what undoes it. */
    private const UNITS = '1000000000000';

    private const UNIT = '0.000000000001';

    /** @param  \Closure(string, list<string>): SqlTerm  $worth  what a function of names gives, or under '' a name */
    public function __construct(private \Closure $worth) {}

    public function number(string $figure): SqlTerm
    {
        return new SqlTerm("{$figure}::numeric");
    }

    public function named(string $function, array $names): SqlTerm
    {
        return ($this->worth)($function, $names);
    }

    public function negated(mixed $one): SqlTerm
    {
        return new SqlTerm("(- {$one->sql})", $one->divisor);
    }

    public function plus(mixed $one, mixed $other): SqlTerm
    {
        $divisor = self::common([$one, $other]);

        return new SqlTerm("({$one->over($divisor)} + {$other->over($divisor)})", $divisor);
    }

    public function times(mixed $one, mixed $other): SqlTerm
    {
        return new SqlTerm("({$one->sql} * {$other->sql})", max(1, $one->divisor * $other->divisor));
    }

    public function over(mixed $one, mixed $other): SqlTerm
    {
        return self::divided("({$one->sql} * {$other->divisor})", "({$other->sql} * {$one->divisor})");
    }

    public function size(mixed $one): SqlTerm
    {
        return new SqlTerm("abs({$one->sql})", $one->divisor);
    }

    public function least(array $terms): SqlTerm
    {
        return self::chosen('<', $terms);
    }

    public function most(array $terms): SqlTerm
    {
        return self::chosen('>', $terms);
    }

    public static function divided(string $dividend, string $divisor): SqlTerm
    {
        // (2 · |a| · 10^12 + |b|) div (2 · |b|) is |a ÷ b| in units of the last decimal, rounded half up.
        return new SqlTerm("(sign({$dividend}) * sign({$divisor}) * div(abs({$dividend}) * (2 * ".self::UNITS."::numeric) + abs({$divisor}), nullif(2 * abs({$divisor}), 0)) * ".self::UNIT.')');
    }

    /**
     * Null where one of them is: least() and greatest() would pass it over.
     *
     * @param  non-empty-list<SqlTerm>  $terms
     */
    private static function chosen(string $sign, array $terms): SqlTerm
    {
        $divisor = self::common($terms);
        $texts = array_map(fn (SqlTerm $term): string => $term->over($divisor), $terms);
        $function = $sign === '<' ? 'least' : 'greatest';

        return new SqlTerm('(CASE WHEN '.implode(' OR ', array_map(fn (string $text): string => "{$text} IS NULL", $texts))." THEN NULL ELSE {$function}(".implode(', ', $texts).') END)', $divisor);
    }

    /**
     * @param  non-empty-list<SqlTerm>  $terms
     * @return positive-int a divisor of which all of theirs are factors
     */
    private static function common(array $terms): int
    {
        return array_reduce($terms, function (int $common, SqlTerm $term): int {
            [$one, $other] = [$common, $term->divisor];
            while ($other !== 0) {
                [$one, $other] = [$other, $one % $other];
            }

            return max(1, intdiv($common, max(1, $one)) * $term->divisor);
        }, 1);
    }
}
