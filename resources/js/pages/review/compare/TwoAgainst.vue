<script setup lang="ts">
import { useNumbers, counted } from '@/composables/useNumbers';
import { unitsOfKind } from '@/composables/unitKinds';
import { cut, dots } from '@/graphics/peers';
import { number, ticks } from '@/graphics/scale';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useId, useTemplateRef } from 'vue';
import AimBand from './AimBand.vue';
import GraphicHead from './GraphicHead.vue';
import GraphicTable from './GraphicTable.vue';
import { useCompared, type ComparedKpi } from './useComparison';
import PointMark from './PointMark.vue';
import ReadSvg from './ReadSvg.vue';
import { usePoints } from './usePoints';
import { useWords } from './useWords';

/** Any two KPIs against each other: each point a unit, both targets as lines, and what can be said with so many. */
const view = useCompared();
const id = useId();
const props = defineProps<{ lying: ComparedKpi; standing: ComparedKpi }>();
const { plain, fixed, figure } = useNumbers();
const { written } = useWords();

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const table = ref(false);
const HEIGHT = 262;
const [LEFT, RIGHT, TOP, FLOOR] = [46, 20, 12, HEIGHT - 40];
const width = computed(() => Math.max(260, measured.value));

const both = computed(() =>
    view.units.map((_, at): [number, number] | null => {
        const [x, y] = [props.lying, props.standing].map((kpi) => number(kpi.cells[at]?.actual?.exact));
        return x == null || y == null ? null : [x, y];
    }),
);
/** The target of most, where they share one; otherwise from which to which they reach. */
function target(kpi: ComparedKpi): { low: number; high: number; text: string } | null {
    const aims = kpi.cells.flatMap((cell) => (cell?.target ? [cell.target] : []));
    if (view.plain || aims.length === 0) {
        return null;
    }
    const values = aims.map(({ exact }) => Number(exact));
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const name = (value: number): string => {
        const shown = aims[values.indexOf(value)];
        return shown === undefined ? '' : figure(shown, kpi.measure);
    };
    return { low, high, text: low === high ? `target ${name(low)}` : `targets ${name(low)} to ${name(high)}` };
}
const targets = computed(() => [target(props.lying), target(props.standing)]);
const scale = (axis: 0 | 1) => {
    const values = both.value.flatMap((point) => (point === null ? [] : [point[axis]]));
    const aim = targets.value[axis];
    const all = [...values, ...(aim ? [aim.low, aim.high] : [])];
    const marks = ticks(Math.min(...all), Math.max(...all), axis === 0 ? 5 : 4);
    return { low: marks[0] ?? 0, high: marks.at(-1) ?? 1, marks };
};
const across = computed(() => scale(0));
const up = computed(() => scale(1));
const x = (value: number): number =>
    LEFT + ((value - across.value.low) / (across.value.high - across.value.low || 1)) * (width.value - LEFT - RIGHT);
const y = (value: number): number =>
    FLOOR - ((value - up.value.low) / (up.value.high - up.value.low || 1)) * (FLOOR - TOP);
const points = computed(() => both.value.map((point): [number, number] | null => point && [x(point[0]), y(point[1])]));
const some = (pass: (at: number) => boolean) =>
    dots(points.value.flatMap((point, at) => (point !== null && pass(at) ? [point] : [])));
const found = computed(() => view.lit.found);
const rest = computed(() => some((at) => at !== view.followed && found.value[at] === null));
const lit = computed(() => some((at) => at !== view.followed && found.value[at] !== null));
const size = computed(() => (points.value.length > 150 ? 6 : 9));

const order = computed(() =>
    both.value
        .flatMap((point, at) => (point === null ? [] : [{ at, x: point[0], y: point[1] }]))
        .sort((one, other) => one.x - other.x || one.y - other.y)
        .map(({ at }) => at),
);
const { at: readAt, ...on } = usePoints(order, points, (at) => view.toFollow(at));
const said = (at: number): string =>
    `${view.names[at]}: ${props.lying.name} ${written(props.lying, props.lying.cells[at])}, ${props.standing.name} ${written(props.standing, props.standing.cells[at])}`;
const labelled = computed(() =>
    [...new Set([view.followed, readAt.value ?? -1])].flatMap((at) => {
        const point = points.value[at];
        return point == null
            ? []
            : [
                  {
                      at,
                      x: point[0],
                      y: point[1],
                      isRight: point[0] > width.value * 0.6,
                      name: cut(view.names[at] ?? '', 28),
                  },
              ];
    }),
);

const aims = computed(() => {
    const [lying, standing] = targets.value;
    return [
        ...(lying ? [{ x: x(lying.low), y: TOP, width: x(lying.high) - x(lying.low), height: FLOOR - TOP }] : []),
        ...(standing ? [{ x: LEFT, y: y(standing.high), width: width.value - LEFT - RIGHT, height: y(standing.low) - y(standing.high) }] : []), // prettier-ignore
    ];
});

const pair = computed(() =>
    (view.page?.pairs ?? []).find(
        ({ one, other }) =>
            (one === props.lying.code && other === props.standing.code) ||
            (one === props.standing.code && other === props.lying.code),
    ),
);
const units = computed(() => unitsOfKind(view.page?.kind ?? ''));
const sentence = computed(() => {
    const found = pair.value;
    if (found === undefined) {
        return 'Too few have both to say how they go together.';
    }
    const count = `with ${counted(found.pairs)} ${units.value}`;
    const move = { together: 'They move together', against: 'One rises as the other falls', apart: 'They have hardly anything to do with each other' }[found.moving]; // prettier-ignore
    const chance =
        found.moving === 'apart'
            ? ''
            : found.hardlyChance
              ? `; ${count} hardly chance`
              : `; ${count} it may well be chance`;
    const ranks = found.byFew
        ? ` By their ranks it is ${fixed(found.spearman, 2)}: a few far out make the difference.`
        : '';
    return `${move}: ${fixed(found.pearson, 2)}${chance}.${ranks}`;
});
const axis = (kpi: ComparedKpi): string => [kpi.name, kpi.measure].filter((part) => part !== '').join(', ');
const title = computed(
    () => `${props.standing.name} against ${props.lying.name.charAt(0).toLowerCase()}${props.lying.name.slice(1)}`,
);
const rows = computed(() =>
    order.value.map((at) => ({
        key: String(at),
        cells: [view.names[at] ?? '', ...[props.lying, props.standing].map((kpi) => written(kpi, kpi.cells[at]))],
        marked: at === view.followed,
    })),
);
</script>

<template>
    <section :aria-labelledby="id">
        <GraphicHead :id="id" :title="title" :table="table" @turn="table = !table"
            >Each point is one of the {{ units }}. {{ sentence }}</GraphicHead
        >
        <GraphicTable v-if="table" :heads="['', lying.name, standing.name]" :rows="rows" :label="title" />
        <div v-else ref="frame">
            <ReadSvg
                :width="width"
                :height="HEIGHT"
                :points="on"
                :label="`${title}. ${sentence} Arrow keys read the points, Enter follows one.`"
            >
                <g class="fill-ink-faint">
                    <g v-for="mark in up.marks" :key="`u${mark}`">
                        <line :x1="LEFT" :x2="width - RIGHT" :y1="y(mark)" :y2="y(mark)" class="stroke-rule-soft" />
                        <text :x="LEFT - 7" :y="y(mark) + 4" text-anchor="end">{{ plain(mark) }}</text>
                    </g>
                    <g v-for="mark in across.marks" :key="`a${mark}`">
                        <line :x1="x(mark)" :x2="x(mark)" :y1="TOP" :y2="FLOOR" class="stroke-rule-soft" />
                        <text :x="x(mark)" :y="FLOOR + 15" text-anchor="middle">{{ plain(mark) }}</text>
                    </g>
                </g>
                <text :x="(LEFT + width - RIGHT) / 2" :y="HEIGHT - 6" text-anchor="middle" class="fill-ink-soft">
                    {{ axis(lying) }}
                </text>
                <text
                    :transform="`translate(11 ${(TOP + FLOOR) / 2}) rotate(-90)`"
                    text-anchor="middle"
                    class="fill-ink-soft"
                >
                    {{ axis(standing) }}
                </text>
                <AimBand v-for="(aim, at) in aims" :key="at" v-bind="aim" />
                <path :d="rest" class="stroke-line opacity-80" :stroke-width="size" stroke-linecap="round" />
                <path :d="lit" class="stroke-ink" :stroke-width="size + 1" stroke-linecap="round" />
                <PointMark
                    v-for="each in labelled"
                    :key="each.at"
                    :x="each.x"
                    :y="each.y"
                    :text="each.name"
                    :is-followed="each.at === view.followed"
                    :is-right="each.isRight"
                    :lift="4"
                />
                <text
                    v-if="targets[0]"
                    :x="x(targets[0].high) + (x(targets[0].high) > width - 110 ? -4 : 4)"
                    :y="FLOOR - 5"
                    :text-anchor="x(targets[0].high) > width - 110 ? 'end' : 'start'"
                    class="fill-brass stroke-paper [paint-order:stroke]"
                    stroke-width="4"
                >
                    {{ targets[0].text }}
                </text>
                <text
                    v-if="targets[1]"
                    :x="width - RIGHT - 3"
                    :y="Math.max(TOP + 9, y(targets[1].high) - 4)"
                    text-anchor="end"
                    class="fill-brass stroke-paper [paint-order:stroke]"
                    stroke-width="4"
                >
                    {{ targets[1].text }}
                </text>
            </ReadSvg>
            <p class="min-h-[19px] text-[13px] text-ink-soft" role="status">
                {{ readAt === null ? '' : said(readAt) }}
            </p>
        </div>
    </section>
</template>
