-- What `assess` works out of a generated workbook, as plain SQL over the same figures: spans with their like-for-like
-- figures, variances, statuses and courses, now and as of the month before; trend, control limits, projection to the
-- year end and streak. bench:assess --sql times it, and holds its figures and statuses against the core's.
--
-- It knows only what that workbook has: monthly KPIs, one rule each, no bands, no gathering over units. It leaves out the
-- signals, the distribution functions, the reasons in words and the exceptions.
WITH
span (at, name, low, high) AS (
    SELECT now.at, span.name, span.low, now.at
    FROM (VALUES (:chosen), (:chosen - 1)) AS now (at)
    CROSS JOIN LATERAL (VALUES
        ('month', now.at),
        ('quarter', now.at - (now.at - :april) % 3),
        ('yearToDate', now.at - (now.at - :april) % 12),
        ('rolling12', now.at - 11)
    ) AS span (name, low)
),
-- A figure is one that was entered, or the two that a formula divides.
figure AS MATERIALIZED (
    SELECT place.id, place.kpi, cell.month, cell.target, cell.actual, above.actual AS dividend, below.actual AS divisor,
           CASE WHEN kpi.above IS NULL THEN cell.actual ELSE round(above.actual / nullif(below.actual, 0), 12) * 100 END AS value,
           CASE WHEN kpi.above IS NULL THEN cell.actual IS NOT NULL ELSE above.actual IS NOT NULL AND below.actual IS NOT NULL END AS there
    FROM bench_place place
    JOIN bench_kpi kpi ON kpi.id = place.kpi
    JOIN bench_cell cell ON cell.place = place.id
    LEFT JOIN bench_place above_place ON above_place.kpi = kpi.above AND above_place.unit = place.unit
    LEFT JOIN bench_cell above ON above.place = above_place.id AND above.month = cell.month
    LEFT JOIN bench_place below_place ON below_place.kpi = kpi.below AND below_place.unit = place.unit
    LEFT JOIN bench_cell below ON below.place = below_place.id AND below.month = cell.month
),
pair AS MATERIALIZED (
    SELECT now.*, prior.value AS prior_value, prior.actual AS prior_actual, prior.dividend AS prior_dividend, prior.divisor AS prior_divisor,
           coalesce(prior.there, false) AS prior_there
    FROM figure now LEFT JOIN figure prior ON prior.id = now.id AND prior.month = now.month - 12
),
gathered AS (
    SELECT pair.id, pair.kpi, span.at, span.name,
        count(*) FILTER (WHERE there) AS reported,
        count(*) FILTER (WHERE there AND target IS NOT NULL) AS compared,
        count(*) FILTER (WHERE there AND prior_there) AS compared_prior,
        sum(actual) FILTER (WHERE there) AS total, avg(actual) FILTER (WHERE there) AS mean,
        (max(ARRAY[month, actual]) FILTER (WHERE there))[2] AS latest,
        avg(dividend) FILTER (WHERE there) AS dividend, (max(ARRAY[month, divisor]) FILTER (WHERE there))[2] AS divisor,
        -- Of the whole span where nothing is reported, so that one sees what was aimed at.
        coalesce(sum(target) FILTER (WHERE there), sum(target)) AS target_total, coalesce(avg(target) FILTER (WHERE there), avg(target)) AS target_mean,
        coalesce((max(ARRAY[month, target]) FILTER (WHERE there))[2], (max(ARRAY[month, target]))[2]) AS target_latest,
        sum(actual) FILTER (WHERE there AND prior_there) AS like_total, avg(actual) FILTER (WHERE there AND prior_there) AS like_mean,
        (max(ARRAY[month, actual]) FILTER (WHERE there AND prior_there))[2] AS like_latest,
        avg(dividend) FILTER (WHERE there AND prior_there) AS like_dividend,
        (max(ARRAY[month, divisor]) FILTER (WHERE there AND prior_there))[2] AS like_divisor,
        sum(prior_actual) FILTER (WHERE there AND prior_there) AS prior_total, avg(prior_actual) FILTER (WHERE there AND prior_there) AS prior_mean,
        (max(ARRAY[month, prior_actual]) FILTER (WHERE there AND prior_there))[2] AS prior_latest,
        avg(prior_dividend) FILTER (WHERE there AND prior_there) AS prior_dividend,
        (max(ARRAY[month, prior_divisor]) FILTER (WHERE there AND prior_there))[2] AS prior_divisor
    FROM pair JOIN span ON pair.month BETWEEN span.low AND span.high
    GROUP BY pair.id, pair.kpi, span.at, span.name
),
told AS (
    SELECT gathered.id, at, name, reported, compared, compared_prior, kpi.sign, kpi.reference, kpi.measure, kpi.green, kpi.amber,
        CASE kpi.accumulation WHEN 'sum' THEN greatest(compared, 1) ELSE 1 END AS factor,
        CASE kpi.accumulation WHEN 'sum' THEN greatest(reported, 1) ELSE 1 END AS level_factor,
        CASE kpi.accumulation WHEN 'sum' THEN total WHEN 'mean' THEN mean WHEN 'latest' THEN latest
            ELSE round(dividend / nullif(divisor, 0), 12) * 100 END AS actual,
        CASE kpi.accumulation WHEN 'sum' THEN target_total WHEN 'latest' THEN target_latest ELSE target_mean END AS target,
        CASE kpi.accumulation WHEN 'sum' THEN like_total WHEN 'mean' THEN like_mean WHEN 'latest' THEN like_latest
            ELSE round(like_dividend / nullif(like_divisor, 0), 12) * 100 END AS alike,
        CASE kpi.accumulation WHEN 'sum' THEN prior_total WHEN 'mean' THEN prior_mean WHEN 'latest' THEN prior_latest
            ELSE round(prior_dividend / nullif(prior_divisor, 0), 12) * 100 END AS prior
    FROM gathered JOIN bench_kpi kpi ON kpi.id = gathered.kpi
),
deviating AS (
    SELECT told.*,
        actual - target AS variance, (actual - target) / nullif(abs(target), 0) * 100 AS variance_percent,
        alike - prior AS change, (alike - prior) / nullif(abs(prior), 0) * 100 AS change_percent,
        -- How far off, and the two limits, in the rule's own measure and turned so that more is worse.
        CASE
            WHEN reference = 'prior-year' THEN sign * (prior - alike) / nullif(abs(prior), 0) * 100
            WHEN measure = 'percent' THEN sign * (target - actual) / nullif(abs(target), 0) * 100
            WHEN measure = 'absolute' THEN sign * (target - actual)
            WHEN measure = 'reached' THEN sign * (target - actual) / nullif(target, 0) * 100
            ELSE sign * (green * level_factor - actual) END AS off,
        CASE
            WHEN reference = 'prior-year' THEN 0
            WHEN measure = 'percent' THEN sign * (target - prior) / nullif(abs(target), 0) * 100
            WHEN measure = 'absolute' THEN sign * (target - prior)
            WHEN measure = 'reached' THEN sign * (target - prior) / nullif(target, 0) * 100
            ELSE sign * (green * level_factor - prior) END AS prior_off,
        CASE measure WHEN 'absolute' THEN green * factor WHEN 'reached' THEN 100 - green WHEN 'level' THEN 0 ELSE green END AS best,
        CASE measure WHEN 'absolute' THEN amber * factor WHEN 'reached' THEN 100 - amber WHEN 'level' THEN sign * (green - amber) * level_factor ELSE amber END AS worst
    FROM told
),
judged AS (
    SELECT deviating.*,
        CASE WHEN reported = 0 OR actual IS NULL THEN 'no-data' WHEN off IS NULL THEN 'not-judged'
            WHEN off <= best THEN 'green' WHEN off <= worst THEN 'amber' ELSE 'red' END AS status,
        ((off - best) / nullif(worst - best, 0))::float8 AS course, ((prior_off - best) / nullif(worst - best, 0))::float8 AS prior_course
    FROM deviating
),
single AS (
    SELECT pair.id, pair.month,
        CASE WHEN NOT there OR value IS NULL THEN NULL
            WHEN off IS NULL THEN NULL
            WHEN off <= CASE kpi.measure WHEN 'reached' THEN 100 - kpi.green WHEN 'level' THEN 0 ELSE kpi.green END THEN 'green'
            WHEN off <= CASE kpi.measure WHEN 'reached' THEN 100 - kpi.amber WHEN 'level' THEN kpi.sign * (kpi.green - kpi.amber) ELSE kpi.amber END THEN 'amber'
            ELSE 'red' END AS status
    FROM pair JOIN bench_kpi kpi ON kpi.id = pair.kpi
    CROSS JOIN LATERAL (SELECT CASE
            WHEN kpi.reference = 'prior-year' THEN kpi.sign * (prior_value - value) / nullif(abs(prior_value), 0) * 100
            WHEN kpi.measure = 'percent' THEN kpi.sign * (target - value) / nullif(abs(target), 0) * 100
            WHEN kpi.measure = 'absolute' THEN kpi.sign * (target - value)
            WHEN kpi.measure = 'reached' THEN kpi.sign * (target - value) / nullif(target, 0) * 100
            ELSE kpi.sign * (kpi.green - value) END AS off) AS deviation
    WHERE pair.month <= :chosen
),
streak AS (
    SELECT id, status, length FROM (
        SELECT id, status, count(*) OVER (PARTITION BY id, run) AS length, row_number() OVER (PARTITION BY id ORDER BY month DESC) AS back
        FROM (SELECT id, month, status, sum(turn) OVER (PARTITION BY id ORDER BY month DESC) AS run
            FROM (SELECT id, month, status, (status IS DISTINCT FROM lag(status) OVER (PARTITION BY id ORDER BY month DESC))::int AS turn
                FROM single WHERE status IS NOT NULL) AS turns) AS runs) AS lengths
    WHERE back = 1
),
trend AS (
    SELECT id, regr_count(value, month) AS n, regr_slope(value, month) AS slope, regr_intercept(value, month - :chosen + 12) AS intercept, regr_r2(value, month) AS r2,
        sqrt((regr_syy(value, month) - regr_slope(value, month) * regr_sxy(value, month)) / nullif(regr_count(value, month) - 2, 0) / nullif(regr_sxx(value, month), 0)) AS slope_error
    FROM (SELECT id, month, value::float8 AS value FROM figure WHERE month BETWEEN :chosen - 11 AND :chosen) AS year
    GROUP BY id HAVING regr_count(value, month) >= 6
),
control AS (
    SELECT id, centre, centre - 2.66 * moving AS lower, centre + 2.66 * moving AS upper
    FROM (SELECT id, avg(value) AS centre, avg(abs(value - before)) AS moving, count(value) AS n
        FROM (SELECT id, value::float8 AS value, lag(value::float8) OVER (PARTITION BY id ORDER BY month) AS before
            FROM figure WHERE month BETWEEN :chosen - 24 AND :chosen - 1) AS steps
        GROUP BY id) AS baseline
    WHERE n >= 8
),
year AS (
    SELECT pair.id, kpi.accumulation,
        count(*) FILTER (WHERE there) AS n,
        bool_and(NOT there OR prior_there) AS alike,
        sum(actual) FILTER (WHERE there) AS total, avg(actual) FILTER (WHERE there) AS mean,
        sum(prior_actual) FILTER (WHERE there AND prior_there) AS prior_total, avg(prior_actual) FILTER (WHERE there AND prior_there) AS prior_mean,
        (max(ARRAY[month, actual]) FILTER (WHERE there))[2] AS latest
    FROM pair JOIN bench_kpi kpi ON kpi.id = pair.kpi
    WHERE month BETWEEN :chosen - (:chosen - :april) % 12 AND :chosen
    GROUP BY pair.id, kpi.accumulation
),
prior_year AS (
    SELECT id, sum(actual) AS total, avg(actual) AS mean, count(*) FILTER (WHERE there) = 12 AS whole FROM figure
    WHERE month BETWEEN :chosen - (:chosen - :april) % 12 - 12 AND :chosen - (:chosen - :april) % 12 - 1 GROUP BY id
),
projection AS (
    SELECT year.id, CASE
        WHEN n = 0 THEN NULL
        WHEN accumulation = 'sum' AND alike AND whole THEN year.total * prior_year.total / nullif(year.prior_total, 0)
        WHEN accumulation = 'sum' THEN year.total / n * 12
        WHEN accumulation = 'mean' AND alike AND whole THEN year.mean + prior_year.mean - year.prior_mean
        WHEN accumulation = 'mean' THEN year.mean
        ELSE latest END AS value
    FROM year JOIN prior_year USING (id)
)
SELECT now.id, now.name, now.reported, now.compared, now.compared_prior, now.actual, now.target, now.prior, now.variance, now.variance_percent,
    now.change, now.change_percent, now.status, now.course, before.course AS before, now.prior_course,
    trend.slope, trend.intercept, trend.r2, trend.slope_error, control.centre, control.lower, control.upper,
    projection.value AS projected, streak.status AS streak, streak.length
FROM judged now
JOIN judged before ON before.id = now.id AND before.name = now.name AND before.at = :chosen - 1
LEFT JOIN trend ON trend.id = now.id LEFT JOIN control ON control.id = now.id
LEFT JOIN projection ON projection.id = now.id LEFT JOIN streak ON streak.id = now.id
WHERE now.at = :chosen
ORDER BY now.id, now.name
