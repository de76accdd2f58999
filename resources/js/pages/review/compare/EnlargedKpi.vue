<script setup lang="ts">
import { useEscape } from '@/composables/useEscape';
import { useNumbers } from '@/composables/useNumbers';
import { cut, dots, ordered } from '@/graphics/peers';
import { number, ticks } from '@/graphics/scale';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import GraphicHead from './GraphicHead.vue';
import GraphicTable from './GraphicTable.vue';
import { useCompared, type ComparedKpi } from './useComparison';
import PointMark from './PointMark.vue';
import ReadSvg from './ReadSvg.vue';
import { usePoints } from './usePoints';
import { useWords } from './useWords';

/** One KPI by itself: the ranked figures as an area, the best on the right, with the followed unit and those lit up on it. */
const view = useCompared();
const props = defineProps<{ kpi: ComparedKpi }>();
const emit = defineEmits<{ close: [] }>();
const { figure, plain, withMeasure } = useNumbers();
const { written } = useWords();
useEscape(
    () => true,
    () => emit('close'),
);

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(300, measured.value));
const HEIGHT = 216;
const [LEFT, RIGHT, TOP, FLOOR] = [52, 14, 16, HEIGHT - 26];
const table = ref(false);

const values = computed(() => props.kpi.cells.map((cell) => number(cell?.actual?.exact)));
/** The last on the left: better to the right, as everywhere. What is only tracked goes from low to high. */
const places = computed(() =>
    props.kpi.polarity === 'none'
        ? ordered(values.value).filter((at) => values.value[at] !== null)
        : ordered(
              props.kpi.cells.map((cell) => cell?.rank ?? null),
              true,
          ).filter((at) => props.kpi.cells[at]?.rank != null),
);
const scale = computed(() => {
    const known = places.value.map((at) => values.value[at] ?? 0);
    const [least, most] = [Math.min(...known), Math.max(...known)];
    const marks = ticks(least >= 0 && least <= most * 0.6 ? 0 : least, Math.max(most, least), 4);
    return { low: marks[0] ?? 0, high: marks.at(-1) ?? 1, marks };
});
const x = (index: number): number =>
    LEFT + ((index + 0.5) / Math.max(1, places.value.length)) * (width.value - LEFT - RIGHT);
const y = (value: number): number =>
    FLOOR - ((value - scale.value.low) / (scale.value.high - scale.value.low || 1)) * (FLOOR - TOP);
const median = computed(() => number(props.kpi.median?.exact));
/** The area stands on zero, where that is on the scale; otherwise on the median: from anywhere else it would say too much. */
const base = computed(() => y(scale.value.low <= 0 && scale.value.high >= 0 ? 0 : (median.value ?? scale.value.low)));
const line = computed(() =>
    places.value.map((at, index) => `${x(index).toFixed(1)},${y(values.value[at] ?? 0).toFixed(1)}`),
);
const area = computed(() =>
    [`${x(0)},${base.value}`, ...line.value, `${x(places.value.length - 1)},${base.value}`].join(' '),
);
const points = computed(() => {
    const found: ([number, number] | null)[] = props.kpi.cells.map(() => null);
    places.value.forEach((at, index) => (found[at] = [x(index), y(values.value[at] ?? 0)]));
    return found;
});
const lit = computed(() => dots(points.value.flatMap((point, at) => (point !== null && view.lit.found[at] !== null ? [point] : [])))); // prettier-ignore
const { at: readAt, ...on } = usePoints(places, points, (at) => view.toFollow(at));
const labelled = computed(() =>
    [...new Set([view.followed, readAt.value ?? -1])].flatMap((at) => {
        const point = points.value[at];
        return point == null
            ? []
            : [{ at, x: point[0], y: point[1], isRight: point[0] > width.value * 0.6, text: `${cut(view.names[at] ?? '', 40)} ${written(props.kpi, props.kpi.cells[at])}` }]; // prettier-ignore
    }),
);
const said = computed(() => {
    const { kpi } = props;
    const middle = kpi.median === null || kpi.lower === null || kpi.upper === null ? '' : ` The median is ${withMeasure(figure(kpi.median), kpi.measure)}; the middle half lies between ${figure(kpi.lower)} and ${figure(kpi.upper)}.`; // prettier-ignore
    const met =
        kpi.aiming === 0
            ? ''
            : ` ${kpi.meeting} of ${kpi.aiming} meet their ${kpi.polarity === 'band' ? 'band' : 'target'}.`;
    return `${places.value.length} ranked, ${kpi.polarity === 'none' ? 'the highest on the right' : 'the best on the right'}.${middle}${met}`;
});
const rows = computed(() =>
    places.value.toReversed().map((at) => {
        const cell = props.kpi.cells[at];
        const percentile = cell?.percentile == null ? '' : plain(cell.percentile);
        return {
            key: String(at),
            cells: [view.names[at] ?? '', String(cell?.rank ?? ''), written(props.kpi, cell), percentile],
            marked: at === view.followed,
        };
    }),
);
</script>

<template>
    <section aria-labelledby="enlarged" class="mb-4 border-b border-rule pb-3">
        <GraphicHead id="enlarged" :title="kpi.name" :table="table" @turn="table = !table"
            >{{ said }}
            <button type="button" class="quiet-link print:hidden" @click="$emit('close')">Close</button></GraphicHead
        >
        <GraphicTable v-if="table" :heads="['', 'rank', 'figure', 'percentile']" :rows="rows" :label="kpi.name" />
        <div v-else ref="frame">
            <ReadSvg
                :width="width"
                :height="HEIGHT"
                :points="on"
                :label="`${kpi.name}. ${said} Arrow keys read the units, Enter follows one.`"
            >
                <g v-for="mark in scale.marks" :key="mark" class="fill-ink-faint">
                    <line :x1="LEFT" :x2="width - RIGHT" :y1="y(mark)" :y2="y(mark)" class="stroke-rule-soft" />
                    <text :x="LEFT - 8" :y="y(mark) + 4" text-anchor="end">{{ plain(mark) }}</text>
                </g>
                <polygon :points="area" class="fill-fill" />
                <polyline
                    :points="line.join(' ')"
                    class="fill-none stroke-line"
                    stroke-width="1.6"
                    stroke-linejoin="round"
                />
                <template v-if="median !== null">
                    <line
                        :x1="LEFT"
                        :x2="width - RIGHT"
                        :y1="y(median)"
                        :y2="y(median)"
                        class="stroke-ink"
                        stroke-dasharray="2 3"
                    />
                    <text
                        :x="LEFT + 4"
                        :y="y(median) - 4"
                        class="fill-ink-soft stroke-paper [paint-order:stroke]"
                        stroke-width="3"
                    >
                        median
                    </text>
                </template>
                <path :d="lit" class="stroke-ink" stroke-width="8" stroke-linecap="round" />
                <g v-for="each in labelled" :key="each.at">
                    <line
                        :x1="each.x"
                        :x2="each.x"
                        :y1="each.y"
                        :y2="FLOOR"
                        class="stroke-ink-faint"
                        stroke-dasharray="1 3"
                    />
                    <PointMark
                        :x="each.x"
                        :y="each.y"
                        :text="each.text"
                        :is-followed="each.at === view.followed"
                        :is-right="each.isRight"
                        :lift="-8"
                    />
                </g>
                <text :x="width - RIGHT" :y="HEIGHT - 8" text-anchor="end" class="fill-ink-faint">
                    {{ kpi.polarity === 'none' ? 'highest' : 'best' }}
                </text>
                <text :x="LEFT" :y="HEIGHT - 8" class="fill-ink-faint">
                    {{ kpi.polarity === 'none' ? 'lowest' : 'last' }}
                </text>
            </ReadSvg>
            <p class="sr-only" role="status">
                {{ readAt === null ? '' : `${view.names[readAt]}, ${written(kpi, kpi.cells[readAt])}` }}
            </p>
        </div>
    </section>
</template>
