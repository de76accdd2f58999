// The outside check of the core's statistics, by jStat, a general-purpose library (run it with bin/outside-check).
// Series are made by a fixed congruential generator, so that the same figures come out on every machine.
import jstat from 'jstat';

const { jStat } = jstat;
let state = 20261123;
const random = () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
};
const figure = (spread) => Math.round((100 + spread * (random() - 0.5)) * 10) / 10;

const cases = Array.from({ length: 40 }, (_, index) => {
    const n = 6 + (index % 20);
    const drift = (random() - 0.5) * 3;
    const x = Array.from({ length: n }, (_, at) => at + 1);
    const y = x.map((at) => Math.round((figure(20) + drift * at) * 10) / 10);
    const other = x.map(() => figure(8));
    const line = jStat.models.ols(
        y,
        x.map((at) => [1, at]),
    );
    return {
        y,
        other,
        slope: line.coef[1],
        intercept: line.coef[0],
        rSquared: line.R2,
        slopeError: line.t.se[1],
        t: line.t.t[1],
        // The library's own p loses digits near 0; its distribution function does not.
        p: 2 * jStat.studentt.cdf(-Math.abs(line.t.t[1]), n - 2),
        pearson: jStat.corrcoeff(y, other),
        spearman: jStat.spearmancoeff(y, other),
        // Both parameters 1: the linear rule, Hyndman and Fan's type 7.
        quantiles: jStat.quantiles(y, [0.1, 0.25, 0.5, 0.75, 0.9], 1, 1),
        deviation: jStat.stdev(y, true),
    };
});
process.stdout.write(`${JSON.stringify(cases)}\n`);
