<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { monthAndYear, shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { spread } from '@/graphics/labels';
import { course } from '@/graphics/lines';
import { cut } from '@/graphics/peers';
import { spanned } from '@/graphics/plane';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useId, useTemplateRef } from 'vue';
import GraphicHead from './GraphicHead.vue';
import GraphicTable from './GraphicTable.vue';
import { useCompared, type ComparedKpi } from './useComparison';
import ReadSvg from './ReadSvg.vue';
import { usePoints } from './usePoints';

/** How the units have ranked over thirteen months: all of them as quiet lines, the followed and the lit ones on them. */
const view = useCompared();
const id = useId();
const props = defineProps<{ kpi: ComparedKpi }>();
const { unit, period, span } = useView();

const {
    data: asked,
    error,
    isPending,
    refetch,
} = useQuery({
    enabled: () => !view.bare,
    queryKey: computed(() => ['comparison-ranks', unit.value.code, period.value, span.value, view.page?.kind, props.kpi.code]), // prettier-ignore
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/comparison/ranks', {
                params: {
                    path: { unit: unit.value.code },
                    query: {
                        period: period.value,
                        span: span.value,
                        kind: view.page?.kind ?? '',
                        kpi: props.kpi.code,
                    },
                },
            }),
        ),
    placeholderData: keepPreviousData,
});
const data = computed(() => view.ranks ?? asked.value);

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(320, measured.value));
const HEIGHT = 420;
const [LEFT, RIGHT, TOP, FLOOR] = [34, 118, 14, HEIGHT - 30];
const table = ref(false);
/** So many can be named beside their lines. */
const NAMED = 26;

const months = computed(() => data.value?.months ?? []);
/** Ranks by place of the unit in the comparison. */
const ranks = computed(() => {
    const of = new Map((data.value?.lines ?? []).map((line) => [line.unit, line.ranks]));
    return view.units.map(({ code }) => of.get(code) ?? []);
});
const most = computed(() => Math.max(2, ...ranks.value.flatMap((line) => line.flatMap((rank) => rank ?? []))));
const plane = computed(
    () =>
    spanned({ low: 1, high: most.value, top: FLOOR, floor: TOP, left: LEFT, right: width.value - RIGHT, count: months.value.length }), // prettier-ignore
);
const lines = computed(() => ranks.value.map((line) => course(plane.value, line)));
const path = (pass: (at: number) => boolean): string =>
    lines.value
        .filter((_, at) => pass(at))
        .flatMap(({ lines: each }) => each.map((run) => `M${run}`))
        .join('');
const isLit = (at: number): boolean => view.lit.found[at] !== null;
const rest = computed(() => path((at) => at !== view.followed && !isLit(at)));
const lit = computed(() => path((at) => at !== view.followed && isLit(at)));
const followed = computed(() => (view.followed < 0 ? '' : path((at) => at === view.followed)));
const marks = computed(() => {
    const step = Math.max(1, Math.ceil(most.value / 12));
    return Array.from({ length: most.value }, (_, index) => index + 1).filter((rank) => rank === 1 || rank === most.value || (rank % step === 0 && most.value - rank >= step)); // prettier-ignore
});
const ends = computed(() => ranks.value.map((line) => line.at(-1) ?? null));
const order = computed(() =>
    ends.value
        .flatMap((rank, at) => (rank === null ? [] : [{ rank, at }]))
        .sort((one, other) => other.rank - one.rank)
        .map(({ at }) => at),
);
const points = computed(() => ends.value.map((rank): [number, number] | null => (rank === null ? null : [width.value - RIGHT, plane.value.y(rank)]))); // prettier-ignore
const { at: readAt, ...on } = usePoints(order, points, (at) => view.toFollow(at));
const readPath = computed(() => (readAt.value === null ? '' : path((at) => at === readAt.value)));
const labels = computed(() => {
    const isFew = order.value.length <= NAMED;
    const wanted = order.value.filter((at) => isFew || at === view.followed || at === readAt.value || isLit(at));
    return spread(
        wanted.map((at) => ({ at, y: plane.value.y(ends.value[at] ?? 1) + 4, name: cut(view.names[at] ?? '', 17) })),
        14,
        TOP + 4,
        FLOOR + 8,
    );
});
const said = (at: number): string => {
    const line = ranks.value[at] ?? [];
    const first = line.findIndex((rank) => rank !== null);
    return first === -1
        ? ''
        : `${view.names[at]}: ${line.at(-1) ?? 'no rank'} now, ${line[first]} in ${monthAndYear(months.value[first] ?? '')}`;
};
const heads = computed(() => ['', ...months.value.map(shortMonth)]);
const rows = computed(() =>
    order.value.toReversed().map((at) => ({
        key: String(at),
        cells: [view.names[at] ?? '', ...(ranks.value[at] ?? []).map((rank) => String(rank ?? '–'))],
        marked: at === view.followed,
    })),
);
</script>

<template>
    <section :aria-labelledby="id">
        <GraphicHead :id="id" :title="`${kpi.name}: ranks over thirteen months`" :table="table" @turn="table = !table"
            >The best on top.
            <label
                >KPI
                <select
                    class="field !h-[26px] !min-h-0 !px-1 !py-0 text-[13.5px] text-ink"
                    :value="kpi.code"
                    @change="view.order = ($event.target as HTMLSelectElement).value"
                >
                    <option v-for="each in view.kpis" :key="each.code" :value="each.code">{{ each.name }}</option>
                </select></label
            ></GraphicHead
        >
        <StateNote v-if="isPending && !data" loading />
        <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
        <StateNote v-else-if="order.length === 0" :title="`${kpi.name} ranks nobody`"
            >It is only tracked, or nobody has a figure of it. Choose another KPI.</StateNote
        >
        <GraphicTable v-else-if="table" :heads="heads" :rows="rows" :label="`${kpi.name}: ranks`" />
        <div v-else ref="frame">
            <ReadSvg
                :width="width"
                :height="HEIGHT"
                :points="on"
                :label="`${kpi.name}: ranks of ${order.length} units over thirteen months. Arrow keys read them, Enter follows one.`"
            >
                <g class="fill-ink-faint">
                    <g v-for="rank in marks" :key="rank">
                        <line
                            :x1="LEFT"
                            :x2="width - RIGHT"
                            :y1="plane.y(rank)"
                            :y2="plane.y(rank)"
                            class="stroke-rule-soft"
                        />
                        <text :x="LEFT - 9" :y="plane.y(rank) + 4" text-anchor="end">{{ rank }}</text>
                    </g>
                    <text
                        v-for="(month, at) in months"
                        :key="month"
                        :x="plane.x(at)"
                        :y="HEIGHT - 8"
                        text-anchor="middle"
                        :class="{ 'fill-ink font-semibold': at === months.length - 1 }"
                    >
                        {{ shortMonth(month) }}
                    </text>
                </g>
                <path
                    :d="rest"
                    class="fill-none stroke-line opacity-45"
                    :stroke-width="order.length > 40 ? 0.7 : 1.3"
                    stroke-linejoin="round"
                />
                <path :d="lit" class="fill-none stroke-ink" stroke-width="1.8" stroke-linejoin="round" />
                <path :d="readPath" class="fill-none stroke-ink" stroke-width="2.2" stroke-linejoin="round" />
                <path :d="followed" class="fill-none stroke-brass" stroke-width="3" stroke-linejoin="round" />
                <template v-if="view.followed >= 0">
                    <template v-for="(rank, at) in ranks[view.followed]" :key="at">
                        <circle
                            v-if="rank !== null"
                            :cx="plane.x(at)"
                            :cy="plane.y(rank)"
                            r="4"
                            class="fill-brass stroke-paper"
                        />
                    </template>
                </template>
                <text
                    v-for="label in labels"
                    :key="label.at"
                    :x="width - RIGHT + 9"
                    :y="label.y"
                    :class="
                        label.at === view.followed
                            ? 'fill-brass font-bold'
                            : isLit(label.at) || label.at === readAt
                              ? 'fill-ink font-semibold'
                              : 'fill-ink-soft'
                    "
                >
                    {{ label.name }}
                </text>
            </ReadSvg>
            <p class="min-h-[19px] text-[13px] text-ink-soft" role="status">
                {{ readAt === null ? '' : said(readAt) }}
            </p>
        </div>
    </section>
</template>
