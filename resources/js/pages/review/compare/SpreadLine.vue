<script setup lang="ts">
import { dots, ordered } from '@/graphics/peers';
import { number } from '@/graphics/scale';
import { useNumbers } from '@/composables/useNumbers';
import { computed, watch } from 'vue';
import { useCompared, type ComparedKpi } from './useComparison';
import ReadSvg from './ReadSvg.vue';
import { usePoints } from './usePoints';
import { useWords } from './useWords';

/** One KPI over its units as points on a line, better to the right, with median, middle half and targets. */
const view = useCompared();
const props = defineProps<{ kpi: ComparedKpi; width: number }>();
const emit = defineEmits<{ read: [text: string] }>();
const { figure } = useNumbers();
const { written } = useWords();

const HEIGHT = 30;
const MIDDLE = 15;
const EDGE = 8;
const values = computed(() => props.kpi.cells.map((cell) => number(cell?.actual?.exact)));
const aims = computed(
    () =>
    view.plain
        ? []
        : props.kpi.cells.flatMap((cell) => [cell?.target, cell?.low, cell?.high].flatMap((each) => number(each?.exact) ?? [])), // prettier-ignore
);
const ends = computed(() => {
    const all = [...values.value.filter((value) => value !== null), ...aims.value];
    return [Math.min(...all), Math.max(...all)] as const;
});
const isTurned = computed(() => props.kpi.polarity === 'lower');
function x(value: number): number {
    const [low, high] = ends.value;
    const share = high === low ? 0.5 : (value - low) / (high - low);
    return EDGE + (isTurned.value ? 1 - share : share) * (props.width - 2 * EDGE);
}
const points = computed(() => values.value.map((value): [number, number] | null => (value === null ? null : [x(value), MIDDLE]))); // prettier-ignore
const some = (pass: (at: number) => boolean) =>
    dots(points.value.flatMap((point, at) => (point !== null && pass(at) ? [point] : [])));
const rest = computed(() => some((at) => view.lit.found[at] === null));
const lit = computed(() => some((at) => view.lit.found[at] !== null));
const followed = computed(() => points.value[view.followed] ?? null);
const half = computed(() => {
    const [low, high] = [number(props.kpi.lower?.exact), number(props.kpi.upper?.exact)];
    return low === null || high === null ? null : { from: Math.min(x(low), x(high)), to: Math.max(x(low), x(high)) };
});
const median = computed(() => number(props.kpi.median?.exact));
const aim = computed(() => {
    const places = aims.value.map(x);
    return places.length === 0 ? null : { from: Math.min(...places), to: Math.max(...places) };
});

const order = computed(() => {
    const inOrder = ordered(values.value).filter((at) => values.value[at] !== null);
    return isTurned.value ? inOrder.toReversed() : inOrder;
});
const { at: readAt, ...on } = usePoints(order, points, (at) => view.toFollow(at));
const said = (at: number | null): string =>
    at === null ? '' : `${view.names[at]}: ${written(props.kpi, props.kpi.cells[at])}`;
watch(readAt, (at) => emit('read', at === null ? '' : `${props.kpi.name}, ${said(at)}`));
const label = computed(() => {
    const { kpi } = props;
    const spread =
        kpi.median === null || kpi.lower === null || kpi.upper === null
            ? ''
            : ` Median ${figure(kpi.median, kpi.measure)}, middle half ${figure(kpi.lower)} to ${figure(kpi.upper)}.`;
    const own = view.followed >= 0 ? ` ${said(view.followed)}.` : '';
    return `${kpi.name} over ${kpi.figures} units.${spread}${own} Arrow keys read the points.`;
});
const dot = computed(() => (props.kpi.cells.length > 150 ? 5 : 7.5));
</script>

<template>
    <ReadSvg :width="width" :height="HEIGHT" :points="on" :label="label">
        <rect
            v-if="half"
            :x="half.from"
            :y="MIDDLE - 8"
            :width="Math.max(1, half.to - half.from)"
            height="16"
            class="fill-fill"
        />
        <line :x1="EDGE" :x2="width - EDGE" :y1="MIDDLE" :y2="MIDDLE" class="stroke-rule" />
        <path :d="rest" class="stroke-line opacity-75" :stroke-width="dot" stroke-linecap="round" />
        <path :d="lit" class="stroke-ink" :stroke-width="dot + 1" stroke-linecap="round" />
        <line
            v-if="median !== null"
            :x1="x(median)"
            :x2="x(median)"
            :y1="MIDDLE - 10"
            :y2="MIDDLE + 10"
            class="stroke-ink"
            stroke-width="1.6"
        />
        <template v-if="aim">
            <line
                v-if="aim.to - aim.from < 2"
                :x1="aim.from"
                :x2="aim.from"
                :y1="MIDDLE - 10"
                :y2="MIDDLE + 10"
                class="stroke-brass"
                stroke-width="2"
            />
            <line
                v-else
                :x1="aim.from"
                :x2="aim.to"
                :y1="MIDDLE + 11"
                :y2="MIDDLE + 11"
                class="stroke-brass"
                stroke-width="3"
            />
        </template>
        <circle
            v-if="readAt !== null && points[readAt]"
            :cx="points[readAt]![0]"
            :cy="MIDDLE"
            r="6"
            class="fill-paper stroke-ink"
            stroke-width="1.5"
        />
        <circle v-if="followed" :cx="followed[0]" :cy="MIDDLE" r="6" class="fill-brass stroke-ink" stroke-width="1.5" />
    </ReadSvg>
</template>
