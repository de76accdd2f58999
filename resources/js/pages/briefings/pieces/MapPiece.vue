<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { STATUSES } from '@/words';
import { centres, drawn, type Region } from '@/graphics/regions';
import { number, ticks } from '@/graphics/scale';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

/** Units where they lie, coloured by status or by their figure in steps. What has no shape is listed beside it. */
const props = defineProps<PieceProps>();
const page = usePage();
const { figure, plain } = useNumbers();

const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const width = computed(() => Math.max(220, Math.round(measured.value) || 420));
const height = computed(() => Math.min(330, Math.round(width.value * 0.64)));
const regions = computed(() => (props.answer.regions ?? []).filter((region) => region.shape !== null));
const others = computed(() => (props.answer.regions ?? []).filter((region) => region.shape === null));
const shapes = computed(() => regions.value.map(({ shape }) => shape as unknown as Region));
const paths = computed(() => drawn(shapes.value, width.value, height.value));
const middles = computed(() => centres(shapes.value, width.value, height.value));

const byFigure = computed(() => choiceOf(props.piece, 'colour', 'status') === 'figure');
const steps = computed(() => {
    const known = (props.answer.regions ?? []).flatMap(({ actual }) => { const value = number(actual?.exact); return value === null ? [] : [value]; }); // prettier-ignore
    if (known.length === 0) {
        return [];
    }
    const marks = ticks(Math.min(...known), Math.max(...known), 4);
    return marks.slice(0, -1).map((from, at) => ({ from, to: marks[at + 1] ?? from }));
});
const STEPS = ['fill-step-1', 'fill-step-2', 'fill-step-3', 'fill-step-4', 'fill-step-5', 'fill-step-6', 'fill-step-6'];
const ZONES = {
    green: 'fill-green-zone',
    amber: 'fill-amber-zone',
    red: 'fill-red-mid',
    'not-judged': 'fill-fill',
    'no-data': 'fill-field',
} as const;
function fill(region: Schemas['MapRegion']): string {
    if (!byFigure.value) {
        return ZONES[region.status];
    }
    const value = number(region.actual?.exact);
    const step = value === null ? -1 : steps.value.findIndex(({ from, to }) => value >= from && value <= to);
    return step < 0 ? 'fill-field' : (STEPS[step] ?? 'fill-step-6');
}
const isBad = (region: Schemas['MapRegion']): boolean => region.status === 'red' || region.status === 'amber';
const isDim = (region: Schemas['MapRegion']): boolean =>
    page.colour.value !== '' && region.status !== page.colour.value;
const said = (region: Schemas['MapRegion']): string =>
    `${region.name}: ${region.actual ? figure(region.actual) : region.instead}, ${STATUSES[region.status]}`;

/** The arrow keys go to the next region in their direction. */
const at = ref(0);
const svg = useTemplateRef<SVGSVGElement>('svg');
const WAYS: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
};
function onKey(event: KeyboardEvent): void {
    const way = WAYS[event.key];
    const from = middles.value[at.value];
    if (way === undefined || from === undefined) {
        return;
    }
    event.preventDefault();
    let best = -1;
    let least = Infinity;
    middles.value.forEach(([x, y], index) => {
        const [dx, dy] = [x - from[0], y - from[1]];
        const ahead = dx * way[0] + dy * way[1];
        const aside = Math.abs(dx * way[1]) + Math.abs(dy * way[0]);
        const far = ahead + 2 * aside;
        if (index !== at.value && ahead > 0 && far < least) {
            [best, least] = [index, far];
        }
    });
    if (best >= 0) {
        at.value = best;
        svg.value?.querySelectorAll<SVGElement>('[data-region]')[best]?.focus();
    }
}
</script>

<template>
    <div ref="frame" class="mt-1">
        <svg
            v-if="regions.length > 0"
            ref="svg"
            :width="width"
            :height="height"
            class="block"
            role="group"
            :aria-label="`${piece.title || 'Map'}; arrow keys go from region to region`"
            @keydown="onKey"
        >
            <path
                v-for="(region, index) in regions"
                :key="region.unit"
                data-region
                :d="paths[index]"
                role="button"
                :tabindex="index === at ? 0 : -1"
                class="cursor-pointer stroke-sheet outline-none focus-visible:stroke-brass"
                :class="[fill(region), { 'opacity-35': isDim(region) }]"
                stroke-width="1.6"
                stroke-linejoin="round"
                :aria-label="said(region)"
                :aria-pressed="page.follow.value === region.unit"
                @click="page.chooseUnit(region.unit)"
                @keydown.enter.space.prevent="page.chooseUnit(region.unit)"
                @focus="at = index"
            >
                <title>{{ said(region) }}</title>
            </path>
            <template v-for="(region, index) in regions" :key="`on ${region.unit}`">
                <path
                    v-if="page.follow.value === region.unit"
                    :d="paths[index]"
                    class="pointer-events-none fill-none stroke-ink"
                    stroke-width="2.2"
                    stroke-linejoin="round"
                />
                <text
                    :x="middles[index]?.[0]"
                    :y="middles[index]?.[1]"
                    text-anchor="middle"
                    class="pointer-events-none fill-ink"
                    :class="{
                        'text-[12px]': width >= 330,
                        'text-[10.5px]': width < 330,
                        'font-[650]': page.follow.value === region.unit || region.status === 'red',
                        'opacity-35': isDim(region),
                    }"
                >
                    {{ region.name }}
                    <tspan v-if="(isBad(region) || byFigure) && region.actual" :x="middles[index]?.[0]" dy="14">
                        {{ figure(region.actual) }}
                    </tspan>
                </text>
            </template>
        </svg>
        <ul
            v-if="byFigure && regions.length > 0"
            class="mt-1 flex flex-wrap gap-x-3 text-[12.5px] text-ink-soft"
            aria-label="Steps"
        >
            <li v-for="(step, index) in steps" :key="step.from" class="flex items-center gap-1.5">
                <svg width="12" height="12" aria-hidden="true">
                    <rect width="12" height="12" :class="STEPS[index]" /></svg
                >{{ plain(step.from) }} to {{ plain(step.to) }}
            </li>
        </ul>
        <template v-if="others.length > 0">
            <p class="mt-1 text-[12.5px] text-ink-faint">
                {{
                    regions.length === 0
                        ? 'Nobody has said yet where these lie on a map (Settings, Units).'
                        : 'Without a shape:'
                }}
            </p>
            <ul class="flex flex-wrap gap-x-4 gap-y-0.5 text-[13.5px]">
                <li v-for="region in others" :key="region.unit" class="flex items-center gap-1.5">
                    <Needle :status="region.status" size="s" />{{ region.name }}
                    <b class="font-semibold">{{ region.actual ? figure(region.actual) : region.instead }}</b>
                </li>
            </ul>
        </template>
    </div>
</template>
