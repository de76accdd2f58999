// The outside check of ranks, percentiles and correlations over many, by jStat, a general-purpose library: the cars of
// the open set `cars` in vega-datasets (run it with bin/outside-check cars).
import { readFileSync } from 'node:fs';
import jstat from 'jstat';

const { jStat } = jstat;
const all = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const kpis = ['Miles_per_Gallon', 'Horsepower', 'Weight_in_lbs'];
const figures = Object.fromEntries(kpis.map((kpi) => [kpi, all.map((car) => car[kpi] ?? null)]));

const peers = kpis.map((kpi) => {
    const known = figures[kpi].filter((figure) => figure !== null);
    const below = (figure) => jStat.percentileOfScore(known, figure, 'strict') * known.length;
    return {
        kpi,
        ranks: figures[kpi].map((figure) => (figure === null ? null : Math.round(1 + below(figure)))),
        percentiles: figures[kpi].map((figure) =>
            figure === null ? null : Math.round((1e8 * below(figure)) / (known.length - 1)) / 1e6,
        ),
        quantiles: jStat.quantiles(known, [0.1, 0.25, 0.5, 0.75, 0.9], 1, 1),
        mean: jStat.mean(known),
    };
});
const pairs = [
    [0, 1],
    [0, 2],
    [1, 2],
].map(([one, other]) => {
    const both = all.map((_, at) => at).filter((at) => figures[kpis[one]][at] !== null && figures[kpis[other]][at] !== null);
    const [x, y] = [one, other].map((each) => both.map((at) => figures[kpis[each]][at]));
    const r = jStat.corrcoeff(x, y);
    return { one: kpis[one], other: kpis[other], pairs: both.length, pearson: r, spearman: jStat.spearmancoeff(x, y) };
});
process.stdout.write(`${JSON.stringify({ figures, peers, pairs })}\n`);
