<script setup lang="ts">
import { useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { loneliest, periodLabels } from '@/graphics/labels';
import { runs, steps, stretches, through, type Spot } from '@/graphics/lines';
import { columned } from '@/graphics/plane';
import { DOT_FILLS, ZONE_FILLS, zonesBetween } from '@/graphics/zones';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import type { Charted, Layers, Mode, Point } from './chart';
import { useCourse } from './useCourse';
import { useCaptions } from './useCaptions';
import { useMarks } from './useMarks';
import { useReading } from './useReading';
import ChartReading from './ChartReading.vue';
import DistanceLane from './DistanceLane.vue';

/** The course of a KPI on its own zones: actual, target, last year, and what can be laid over them. */
const props = defineProps<{
    page: Charted;
    points: readonly Point[];
    mode: Mode;
    layers: Layers;
    /** the point that is looked at */
    chosen: string;
    /** in pixels; that of its own page where it is left out */
    tall?: number;
}>();

const FULL = 330;
const EDGE = { left: 52, right: 16, top: 12, bottom: 46 };

/** Under the sums of a year stands how far they lie from their targets. */
const DISTANCE = 138;

const { figure } = useNumbers();
const frame = useTemplateRef<HTMLElement>('frame');
const svg = useTemplateRef<SVGSVGElement>('svg');
defineExpose({ svg });
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(320, Math.round(measured.value) || 900));
const course = useCourse(props);
const { at, indexOf, actuals, targets, uppers, priors, averages, trend, control, projected, range, scale, tick } =
    course;
const { marks, signals } = useMarks(props, indexOf, control);
/** The longest step of the scale has room at the left. */
const left = computed(() =>
    Math.max(EDGE.left, ...scale.value.ticks.map((value) => 16 + tick.value(value).length * 7)),
);
const inside = computed(() => width.value - left.value - EDGE.right);

const read = ref<number | null>(null);
watch(
    () => [props.mode, props.points],
    () => (read.value = null),
);

const column = computed(() => inside.value / Math.max(1, props.points.length));
// What is drawn once is as tall as it was asked for.
const fullHeight = props.tall ?? FULL;
const bottom = fullHeight - EDGE.bottom;
const hasDistance = computed(
    () =>
        props.mode === 'gathered' &&
        props.page.accumulation === 'sum' &&
        props.page.polarity !== 'band' &&
        props.points.some(({ variance }) => variance !== null),
);
const height = computed(() => fullHeight + (hasDistance.value ? DISTANCE : 0));
/** Notes and actions have a lane of their own under the course. */
const LANE = 40;
const floor = computed(() => bottom - (marks.value.some(({ kind }) => kind !== 'rule') ? LANE : 0));
const plane = computed(() =>
    columned({ ...scale.value, left: left.value, column: column.value, top: EDGE.top, floor: floor.value }),
);
const x = (index: number): number => plane.value.x(index);
const y = (value: number): number => plane.value.y(value);
const line = (run: readonly Spot[]): string => through(plane.value, run);

/** Rectangles of one colour over the periods in which the limits stayed the same. */
const zones = computed(() =>
    !props.layers.zones
        ? []
        : runs(props.points, (one, other) => JSON.stringify(one.zones) === JSON.stringify(other.zones)).flatMap(
              ({ from, to, item }) =>
                  zonesBetween(item.zones, scale.value.low, scale.value.high).map((zone) => ({
                      x: x(from - 0.5),
                      width: (to - from + 1) * column.value,
                      y: y(zone.to),
                      height: y(zone.from) - y(zone.to),
                      fill: ZONE_FILLS[zone.status],
                  })),
          ),
);
const targetSteps = computed(() => [targets.value, uppers.value].flatMap((values) => steps(plane.value, values)));
const months = computed(() =>
    periodLabels(
        props.points.map(({ period }) => period),
        at.value,
        column.value,
        props.mode === 'quarters' ? (period) => `to ${shortMonth(period)}` : undefined,
    ),
);

const captions = useCaptions(
    props,
    course,
    plane,
    computed(() => ({ top: EDGE.top, right: width.value - EDGE.right, bottom })),
);
const priorLabel = computed(() => {
    // At the point that is looked at stands its figure.
    const last = at.value > 1 ? at.value - 1 : at.value;
    const found = loneliest(plane.value, priors.value, [actuals.value, targets.value], last);
    return found === null ? null : { x: x(found.at), y: y(found.value) + (found.isAbove ? -8 : 16) };
});

const shown = computed(() => {
    const index = read.value;
    const point = index === null ? undefined : props.points[index];
    return index === null || point === undefined ? null : { index, point };
});
const { title, lines } = useReading(props);
const reading = computed(() =>
    shown.value === null
        ? null
        : {
              title: title(shown.value.point),
              lines: lines(shown.value.point, signals.value.get(shown.value.index) ?? []),
              marks: marks.value.filter((each) => each.at === shown.value?.index && each.kind !== 'rule'),
          },
);
const said = computed(() =>
    reading.value === null
        ? 'Arrow keys read the points'
        : `${reading.value.title}: ${reading.value.lines.map(({ name, value }) => `${name} ${value}`).join(', ')}`,
);

function onKey(event: KeyboardEvent): void {
    const last = props.points.length - 1;
    const from = read.value ?? (at.value < 0 ? last : at.value);
    const to = {
        ArrowLeft: from - (read.value === null ? 0 : 1),
        ArrowRight: from + (read.value === null ? 0 : 1),
        Home: 0,
        End: last,
    }[event.key];
    if (to !== undefined) {
        event.preventDefault();
        read.value = Math.max(0, Math.min(last, to));
    } else if (event.key === 'Escape') {
        read.value = null;
    }
}

function onPointer(event: PointerEvent): void {
    const box = svg.value?.getBoundingClientRect();
    if (box !== undefined) {
        const index = Math.floor((event.clientX - box.left - left.value) / column.value);
        read.value = index >= 0 && index < props.points.length ? index : null;
    }
}

/** Where the reading of a point stands: beside it, on the side with room. */
const beside = computed(() => {
    if (shown.value === null) {
        return {};
    }
    const place = x(shown.value.index);
    return place < width.value / 2 ? { left: `${place + 16}px` } : { right: `${width.value - place + 16}px` };
});
</script>

<template>
    <div ref="frame" class="relative" @pointermove="onPointer" @pointerleave="read = null">
        <div
            class="absolute inset-0 rounded-[3px]"
            role="slider"
            tabindex="0"
            aria-label="Points of the chart"
            aria-valuemin="0"
            :aria-valuemax="points.length - 1"
            :aria-valuenow="read ?? Math.max(0, at)"
            :aria-valuetext="said"
            @keydown="onKey"
            @blur="read = null"
        />
        <svg
            ref="svg"
            :viewBox="`0 0 ${width} ${height}`"
            :width="width"
            :height="height"
            class="pointer-events-none block w-full text-[13px]"
            aria-hidden="true"
        >
            <g opacity="0.62">
                <rect
                    v-for="(zone, index) in zones"
                    :key="index"
                    :x="zone.x"
                    :y="zone.y"
                    :width="zone.width"
                    :height="zone.height"
                    :class="zone.fill"
                    shape-rendering="crispEdges"
                />
            </g>
            <rect
                v-if="at >= 0"
                :x="left + at * column"
                :y="EDGE.top"
                :width="column"
                :height="bottom - EDGE.top"
                class="fill-sheet"
                opacity="0.6"
            />
            <g v-for="value in scale.ticks" :key="value">
                <line
                    :x1="left"
                    :x2="width - EDGE.right"
                    :y1="y(value)"
                    :y2="y(value)"
                    :class="layers.zones && zones.length > 0 ? 'stroke-paper' : 'stroke-rule-soft'"
                />
                <text :x="left - 8" :y="y(value) + 4" text-anchor="end" class="fill-ink-faint">
                    {{ tick(value) }}
                </text>
            </g>
            <g v-for="(month, index) in months" :key="`m${index}`" text-anchor="middle">
                <text :x="x(index)" :y="bottom + 18" :class="index === at ? 'fill-ink font-bold' : 'fill-ink-soft'">
                    {{ month.text }}
                </text>
                <text :x="x(index)" :y="bottom + 34" class="fill-ink-faint text-[12px]">
                    {{ month.year === month.text ? '' : month.year }}
                </text>
            </g>
            <g v-for="mark in marks.filter(({ kind }) => kind === 'rule')" :key="`r${mark.at}`">
                <line
                    :x1="left + mark.at * column"
                    :x2="left + mark.at * column"
                    :y1="EDGE.top"
                    :y2="bottom"
                    class="stroke-brass"
                    stroke-dasharray="2 3"
                />
                <text :x="left + mark.at * column + 4" :y="EDGE.top + 11" class="fill-brass text-[12px]">
                    {{ mark.words }}
                </text>
            </g>
            <template v-if="control">
                <line
                    v-for="limit in control.lower === null ? [control.upper] : [control.upper, control.lower]"
                    :key="limit"
                    :x1="left"
                    :x2="width - EDGE.right"
                    :y1="y(limit)"
                    :y2="y(limit)"
                    class="stroke-ink-soft"
                    stroke-dasharray="7 3 1.5 3"
                />
                <line
                    :x1="left"
                    :x2="width - EDGE.right"
                    :y1="y(control.centre)"
                    :y2="y(control.centre)"
                    class="stroke-ink-soft"
                    opacity="0.6"
                />
            </template>
            <polyline
                v-for="(run, index) in stretches(priors)"
                :key="`p${index}`"
                :points="line(run)"
                class="fill-none stroke-hollow"
                stroke-width="1.4"
                stroke-dasharray="5 3"
            />
            <text
                v-if="priorLabel && points.length > 1"
                :x="priorLabel.x"
                :y="priorLabel.y"
                text-anchor="middle"
                class="fill-ink-soft stroke-paper text-[12.5px]"
                stroke-width="2.5"
                paint-order="stroke"
            >
                last year
            </text>
            <polyline
                v-for="(path, index) in targetSteps"
                :key="`t${index}`"
                :points="path"
                class="fill-none stroke-ink"
                stroke-width="1.4"
            />
            <line
                v-if="trend"
                :x1="x(trend.from)"
                :x2="x(trend.to)"
                :y1="y(trend.start)"
                :y2="y(trend.end)"
                class="stroke-brass"
                stroke-width="1.6"
            />
            <polyline
                v-for="(run, index) in stretches(averages)"
                :key="`a${index}`"
                :points="line(run)"
                class="fill-none stroke-line"
                stroke-width="3"
                opacity="0.45"
                stroke-linejoin="round"
            />
            <polygon v-if="range" :points="line(range)" class="fill-ink" opacity="0.1" />
            <polyline
                v-if="projected"
                :points="line(projected)"
                class="fill-none"
                :class="
                    page.projection?.status === 'red'
                        ? 'stroke-red'
                        : page.projection?.status === 'amber'
                          ? 'stroke-amber'
                          : page.projection?.status === 'green'
                            ? 'stroke-green'
                            : 'stroke-hollow'
                "
                stroke-width="1.8"
                stroke-dasharray="1.5 4"
                stroke-linecap="round"
            />
            <polyline
                v-for="(run, index) in stretches(actuals)"
                :key="`l${index}`"
                :points="line(run)"
                class="fill-none stroke-ink"
                stroke-width="2.2"
                stroke-linejoin="round"
            />
            <template v-for="(value, index) in actuals" :key="`d${index}`">
                <g v-if="value !== null">
                    <path
                        v-if="signals.has(index)"
                        :d="`M${x(index) - 5},${y(value) - 17} h10 l-5,7z`"
                        class="fill-ink"
                    />
                    <circle
                        :cx="x(index)"
                        :cy="y(value)"
                        :r="index === at || index === read ? 6 : column < 14 ? 3 : 4.2"
                        :class="DOT_FILLS[points[index]!.status]"
                        class="stroke-paper"
                        stroke-width="1.6"
                    />
                    <circle
                        v-if="points[index]!.called"
                        :cx="x(index)"
                        :cy="y(value)"
                        r="8.5"
                        class="fill-none stroke-brass"
                        stroke-width="1.4"
                    />
                    <text
                        v-if="index === at && points[index]!.actual"
                        :x="x(index)"
                        :y="y(value) + (signals.has(index) ? -22 : -12)"
                        text-anchor="middle"
                        class="fill-ink stroke-paper text-[15px] font-bold"
                        stroke-width="3"
                        paint-order="stroke"
                    >
                        {{ figure(points[index]!.actual!, page.measure) }}
                    </text>
                </g>
            </template>
            <g v-for="(mark, index) in marks.filter(({ kind }) => kind !== 'rule')" :key="`k${index}`">
                <path
                    v-if="mark.kind === 'note'"
                    :d="`M${x(mark.at) - 6},${bottom - 15} h12 v8 h-5.5 l-3,3 v-3 h-3.5z`"
                    class="fill-brass-tint stroke-brass"
                    stroke-width="1.1"
                    stroke-linejoin="round"
                />
                <path
                    v-else
                    :d="`M${x(mark.at) - 4},${bottom - 20} v-12 h9 l-2.5,3.4 l2.5,3.4 h-9`"
                    class="fill-brass-tint stroke-brass"
                    stroke-width="1.1"
                    stroke-linejoin="round"
                />
            </g>
            <DistanceLane
                v-if="hasDistance"
                :page="page"
                :points="points"
                :at="at"
                :projected="projected"
                :range="range"
                :zones="layers.zones"
                :left="left"
                :right="width - EDGE.right"
                :column="column"
                :top="fullHeight + 20"
                :floor="height - 10"
                :tick="tick"
            />
            <line
                v-if="shown"
                :x1="x(shown.index)"
                :x2="x(shown.index)"
                :y1="EDGE.top"
                :y2="bottom"
                class="stroke-ink"
                opacity="0.35"
            />
            <text
                v-for="each in captions"
                :key="each.text"
                :x="each.x"
                :y="each.y"
                :text-anchor="each.anchor"
                class="stroke-paper"
                :class="each.look"
                stroke-width="3"
                paint-order="stroke"
            >
                {{ each.text }}
            </text>
        </svg>
        <ChartReading v-if="reading" v-bind="reading" :style="beside" />
    </div>
</template>
