-- The outside check of what is counted from records, by PostgreSQL's aggregates (run it with bin/outside-check).
--
-- Data: birdstrikes.csv of the npm package vega-datasets: wildlife strikes reported to the Federal Aviation
-- Administration of the United States (public domain). Those of Texas from April 2000 to March 2002 are taken: first the
-- records, then, after an empty line, what they give for each month and for the year to date (April year).
-- percentile_cont is Hyndman and Fan's type 7.
CREATE TEMP TABLE strikes (airport text, model text, damage text, day date, operator text, state text, phase text, size text, species text, light text, other numeric, repair numeric, cost numeric, speed numeric);
\copy strikes FROM pstdin CSV HEADER

CREATE TEMP TABLE taken AS
SELECT row_number() OVER (ORDER BY day, model, species, airport, operator, phase, light, cost, speed) AS number, day, damage, size, species, cost, speed, date_trunc('month', day)::date AS month
FROM strikes WHERE state = 'Texas' AND day >= '2000-04-01' AND day < '2002-04-01';

\copy (SELECT number, day, damage, size, species, cost, speed FROM taken ORDER BY number) TO pstdout CSV HEADER
\echo
\copy (SELECT to_char(months.month, 'YYYY-MM') AS month, span, count(*) AS strikes, count(DISTINCT species) AS kinds, trim_scale(sum(cost)) AS cost, trim_scale(round(avg(speed), 12)) AS mean, min(speed) AS lowest, max(speed) AS highest, trim_scale(percentile_cont(0.5) WITHIN GROUP (ORDER BY speed)::numeric) AS median, trim_scale(percentile_cont(0.9) WITHIN GROUP (ORDER BY speed)::numeric) AS nine_in_ten, trim_scale(round(100.0000000000000000 * count(*) FILTER (WHERE damage <> 'None') / count(*), 12)) AS damaged FROM (SELECT DISTINCT month FROM taken) months CROSS JOIN (VALUES ('month'), ('yearToDate')) spans (span) JOIN taken ON taken.month <= months.month AND taken.month >= CASE span WHEN 'month' THEN months.month ELSE (date_trunc('year', months.month - interval '3 months') + interval '3 months')::date END GROUP BY months.month, span ORDER BY months.month, span) TO pstdout CSV HEADER
