import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';
import { number, rounded, ticks } from '@/graphics/scale';
import { limits } from '@/graphics/zones';
import type { Charted, Layers, Mode, Point } from './chart';

/** What a chart of a KPI draws, in numbers by place of the period, and the scale that holds all of it. */
export function useCourse(props: {
    page: Charted;
    points: readonly Point[];
    mode: Mode;
    layers: Layers;
    chosen: string;
}) {
    const { figure } = useNumbers();

    const at = computed(() => props.points.findIndex(({ period }) => period === props.chosen));
    const indexOf = computed(() => new Map(props.points.map(({ period }, index) => [period, index])));

    const actuals = computed(() => props.points.map((point) => number(point.actual?.exact)));
    const targets = computed(() => props.points.map((point) => number(point.target?.exact)));
    const uppers = computed(() => props.points.map((point) => number(point.upper?.exact)));
    const priors = computed(() =>
        props.points.map((point) => (props.layers.prior ? number(point.prior?.exact) : null)),
    );
    const averages = computed(() =>
        props.points.map((point) => (props.layers.average && props.mode === 'months' ? number(point.average) : null)),
    );
    const trend = computed(() => {
        const line = props.page.trend;
        const from = indexOf.value.get(line?.from ?? '');
        return line === null || from === undefined || at.value < 0 || !props.layers.trend || props.mode !== 'months'
            ? null
            : { from, to: at.value, start: line.start, end: line.end };
    });
    const control = computed(() =>
        props.layers.control && props.mode === 'months' && props.page.control !== null ? props.page.control : null,
    );

    /** From the last figure to the year end. A total for the year lies on the scale only where it is gathered. */
    const projected = computed(() => {
        const { projection, accumulation } = props.page;
        const start =
            props.mode === 'gathered'
                ? at.value
                : actuals.value.findLastIndex((value, index) => value !== null && index <= at.value);
        const first = actuals.value[start];
        if (
            !props.layers.projection ||
            projection === null ||
            first === null ||
            first === undefined ||
            props.mode === 'quarters'
        ) {
            return null;
        }
        const end = props.mode === 'gathered' ? props.points.length - 1 : indexOf.value.get(projection.end);
        const value = number(projection.value?.exact);
        const path =
            props.mode === 'months'
                ? projection.path.flatMap(({ period, figure: text }) => {
                      const index = indexOf.value.get(period);
                      return index === undefined ? [] : [{ at: index, value: Number(text) }];
                  })
                : [];
        const reach =
            path.length > 0
                ? path
                : value !== null &&
                    end !== undefined &&
                    end > start &&
                    (props.mode === 'gathered' || accumulation !== 'sum')
                  ? [{ at: end, value }]
                  : [];
        return reach.length === 0 ? null : [{ at: start, value: first }, ...reach];
    });

    /** From where the figure stands now to the two ends of its range; only where the year end is on the chart's scale. */
    const range = computed(() => {
        const { projection, accumulation } = props.page;
        const ends = projected.value;
        const low = number(projection?.low?.exact);
        const high = number(projection?.high?.exact);
        const isOnScale = props.mode === 'gathered' || (props.mode === 'months' && accumulation === 'latest');
        const start = ends?.[0];
        const end = ends?.at(-1);
        return !isOnScale || start === undefined || end === undefined || low === null || high === null
            ? null
            : [start, { at: end.at, value: high }, { at: end.at, value: low }];
    });

    const scale = computed(() => {
        const shown = [
            ...actuals.value,
            ...targets.value,
            ...uppers.value,
            ...priors.value,
            ...averages.value,
            ...(projected.value ?? []).map(({ value }) => value),
            ...(range.value ?? []).map(({ value }) => value),
            ...(trend.value === null ? [] : [trend.value.start, trend.value.end]),
            ...(control.value === null ? [] : [control.value.lower, control.value.upper]),
        ].filter((value) => value !== null);
        if (shown.length === 0) {
            return { low: 0, high: 1, ticks: [] };
        }
        let low = Math.min(...shown);
        let high = Math.max(...shown);
        // The ends of the zones are shown where they are near: a limit far away would flatten the course.
        const spread = high - low || Math.abs(high) || 1;
        const ends = props.layers.zones ? props.points.flatMap(({ zones }) => limits(zones)) : [];
        ends.forEach((end) => {
            if (end > low - spread / 2 && end < high + spread / 2) {
                low = Math.min(low, end);
                high = Math.max(high, end);
            }
        });
        const room = (high - low || Math.abs(high) || 1) * 0.07;
        // What is never below nothing does not get a scale that is.
        const steps = ticks(low >= 0 && low - room < 0 ? 0 : low - room, high + room);
        return { low: steps[0] ?? 0, high: steps.at(-1) ?? 1, ticks: steps };
    });
    /** Steps of a scale are written like the figure: in k, m or bn, all with the same decimals. */
    const tick = computed(() => {
        const suffix = props.page.month.actual?.suffix ?? props.page.yearToDate.actual?.suffix ?? '';
        const unit = { '': 1, k: 1e3, m: 1e6, bn: 1e9 }[suffix];
        const decimals = Math.min(
            6,
            scale.value.ticks.reduce(
                (most, value) =>
                    Math.max(most, String(Number((value / unit).toPrecision(10))).split('.')[1]?.length ?? 0),
                0,
            ),
        );
        return (value: number): string =>
            figure({ exact: '', digits: rounded(value / unit, decimals), suffix }, props.page.measure);
    });

    return { at, indexOf, actuals, targets, uppers, priors, averages, trend, control, projected, range, scale, tick };
}
