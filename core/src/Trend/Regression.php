<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use InvalidArgumentException;

/**
 * The straight line of ordinary least squares, with how sure its slope is.
 *
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 4.1.4.1 and 4.4.3; the sums are centred first, which keeps
 * their digits.
 */
final readonly class Regression
{
    /** Below this share of the total, what is left beside the line is the noise of floating point. */
    private const EXACT_FIT = 1e-12;

    private function __construct(
        public int $n,
        public float $slope,
        public float $intercept,
        /** the share of the variation that the line explains; null for a constant series */
        public ?float $rSquared,
        public float $slopeError,
        public float $interceptError,
        /** null for an exact fit */
        public ?float $t,
        /** two-sided: how likely a slope at least as steep is by chance */
        public float $p,
        /** residual standard error: by how much the figures lie beside the line */
        public float $residualError,
        private float $meanX,
        private float $squaresX,
    ) {}

    /** The standard error of a new figure at x: that of the line there, and of a figure beside it. */
    public function predictionError(float $x): float
    {
        return $this->residualError * sqrt(1 + 1 / $this->n + ($x - $this->meanX) ** 2 / $this->squaresX);
    }

    /**
     * @param  list<float>  $x
     * @param  list<float>  $y  one for each x
     *
     * @throws InvalidArgumentException with fewer than three points, or all at one x
     */
    public static function fit(array $x, array $y): self
    {
        $n = count($x);
        if ($n < 3 || $n !== count($y) || max($x) === min($x)) {
            throw new InvalidArgumentException('A line is fitted to at least three points that do not stand above each other.');
        }
        $meanX = array_sum($x) / $n;
        $xx = array_sum(array_map(fn (float $value): float => ($value - $meanX) ** 2, $x));
        if (max($y) === min($y)) {
            return new self($n, 0.0, $y[0], null, 0.0, 0.0, null, 1.0, 0.0, $meanX, $xx);
        }
        $meanY = array_sum($y) / $n;
        $xy = $total = 0.0;
        foreach ($x as $index => $value) {
            $xy += ($value - $meanX) * ($y[$index] - $meanY);
            $total += ($y[$index] - $meanY) ** 2;
        }
        $slope = $xy / $xx;
        $residual = 0.0;
        foreach ($x as $index => $value) {
            $residual += ($y[$index] - $meanY - $slope * ($value - $meanX)) ** 2;
        }
        $intercept = $meanY - $slope * $meanX;
        if ($residual <= self::EXACT_FIT * $total) {
            return new self($n, $slope, $intercept, 1.0, 0.0, 0.0, null, 0.0, 0.0, $meanX, $xx);
        }
        $variance = $residual / ($n - 2);
        $error = sqrt($variance / $xx);
        $t = $slope / $error;

        return new self(
            $n,
            $slope,
            $intercept,
            max(0.0, 1 - $residual / $total),
            $error,
            sqrt($variance * (1 / $n + $meanX ** 2 / $xx)),
            $t,
            StudentT::twoSided($t, $n - 2),
            sqrt($variance),
            $meanX,
            $xx,
        );
    }
}
