-- The outside check of the core's spans, by PostgreSQL's window functions (run it with bin/outside-check).
--
-- Data: us-employment.csv of the npm package vega-datasets: monthly employment in the United States, 2006 to 2015, in
-- thousands of persons, from the Bureau of Labor Statistics (Current Employment Statistics; public domain).
-- `nonfarm_change` is a flow and is summed; `manufacturing` is a level and is averaged. As target stands the mean of
-- the same month in the two years before, rounded to one decimal: any series of its own serves the check.
CREATE TEMP TABLE monthly (month date PRIMARY KEY, change numeric, level numeric);
\copy monthly FROM pstdin CSV

CREATE TEMP TABLE joined AS
SELECT m.month, m.change, m.level, p.change AS change_prior, p.level AS level_prior,
       round((p.change + q.change) / 2, 1) AS change_target, round((p.level + q.level) / 2, 1) AS level_target,
       extract(year FROM m.month - INTERVAL '3 months') AS year,
       sum(p.change) OVER (PARTITION BY extract(year FROM m.month - INTERVAL '3 months')) AS change_prior_full,
       avg(p.level) OVER (PARTITION BY extract(year FROM m.month - INTERVAL '3 months')) AS level_prior_full,
       count(*) OVER (PARTITION BY extract(year FROM m.month - INTERVAL '3 months')) AS months_of_year
FROM monthly m
JOIN monthly p ON p.month = m.month - INTERVAL '1 year'
JOIN monthly q ON q.month = m.month - INTERVAL '2 years';

\copy (SELECT to_char(month, 'YYYY-MM') AS month, change, change_target, level, level_target, trim_scale(sum(change) OVER ytd) AS change_ytd, trim_scale(sum(change_target) OVER ytd) AS change_target_ytd, trim_scale(sum(change_prior) OVER ytd) AS change_prior_ytd, trim_scale(sum(change) OVER ytd - sum(change_target) OVER ytd) AS change_variance, trim_scale(round((sum(change) OVER ytd - sum(change_prior) OVER ytd) / abs(nullif(sum(change_prior) OVER ytd, 0)) * 100, 12)) AS change_prior_percent, trim_scale(sum(change) OVER twelve) AS change_rolling12, trim_scale(round(avg(level) OVER ytd, 12)) AS level_ytd, trim_scale(round((sum(level) OVER ytd - sum(level_target) OVER ytd) * 1.0000000000000000 / count(*) OVER ytd, 12)) AS level_variance, trim_scale(round(avg(level_prior) OVER ytd, 12)) AS level_prior_ytd, CASE months_of_year WHEN 12 THEN trim_scale(round(sum(change) OVER ytd * change_prior_full / nullif(sum(change_prior) OVER ytd, 0), 6)) END AS change_seasonal, CASE months_of_year WHEN 12 THEN trim_scale(round(avg(level) OVER ytd + level_prior_full - avg(level_prior) OVER ytd, 6)) END AS level_seasonal, change_prior, level_prior FROM joined WINDOW ytd AS (PARTITION BY year ORDER BY month), twelve AS (ORDER BY month ROWS 11 PRECEDING) ORDER BY month) TO pstdout CSV HEADER
