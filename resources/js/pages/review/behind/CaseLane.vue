<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { ticks } from '@/graphics/scale';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef } from 'vue';
import { stacked } from './dots';

/** Cases of one kind over their values: dots, or beyond a thousand a histogram that says so. */
const props = defineProps<{
    row: Schemas['CaseRow'];
    ends: [number, number];
    goal: number | null;
    goodBelow: boolean;
    measure: string;
    title: string;
    tall: boolean;
}>();
const emit = defineEmits<{ pick: [] }>();
const { atMost, plain } = useNumbers();

/** Drawn as wide as there is room, so that its words are as large as all others. */
const frame = useTemplateRef<HTMLElement>('frame');
const { width: measured } = useElementSize(frame);
const LEAST = 280;
const width = computed(() => Math.max(LEAST, measured.value));
const ROOM = computed(() => (props.tall ? 150 : 58));
const FLOOR = computed(() => ROOM.value + 4);
const x = (value: number): number =>
    ((value - props.ends[0]) / (props.ends[1] - props.ends[0] || 1)) * (width.value - 20) + 10;
const marks = computed(() =>
    ticks(props.ends[0], props.ends[1], 6).filter((mark) => mark >= props.ends[0] && mark <= props.ends[1]),
);
const size = computed(() => (props.row.values.length > 400 ? 4.6 : 6.4));
const dots = computed(() => stacked(props.row.values.map(Number), x, size.value, ROOM.value));
const fails = (value: number): boolean =>
    props.goal !== null && (props.goodBelow ? value > props.goal : value < props.goal);
const bars = computed(() => {
    const most = Math.max(1, ...props.row.bins.map(({ cases }) => cases));
    return props.row.bins.map((bin) => ({
        ...bin,
        x: x(Number(bin.from)),
        width: Math.max(1, x(Number(bin.to)) - x(Number(bin.from)) - 1),
        height: (bin.cases / most) * ROOM.value,
        fails: fails((Number(bin.from) + Number(bin.to)) / 2),
    }));
});
const inWords = (text: string | null): string =>
    text === null ? '' : atMost(Number(text), Math.abs(Number(text)) >= 1 ? 1 : 2);
</script>

<template>
    <div class="grid items-center gap-x-5 border-b border-rule-soft py-2 md:grid-cols-[150px_minmax(0,1fr)_176px]">
        <p class="leading-tight">
            <b class="block font-semibold first-letter:uppercase">{{ title }}</b>
            <span class="block text-[13.5px] text-ink-soft">{{
                row.meaning || `${atMost(row.cases, 0)} of them`
            }}</span>
        </p>
        <div v-if="row.cases > 0" ref="frame" class="min-w-0">
            <svg
                :viewBox="`0 0 ${width} ${FLOOR + 18}`"
                :width="width"
                class="max-w-full"
                role="img"
                :aria-label="`${title}: ${atMost(row.cases, 0)} over their values; mean ${inWords(row.mean)}, half up to ${inWords(row.median)}, nine in ten up to ${inWords(row.ninth)} ${measure}`"
            >
                <line x1="0" :x2="width" :y1="FLOOR" :y2="FLOOR" class="stroke-rule" />
                <text
                    v-for="mark in marks"
                    :key="mark"
                    :x="x(mark)"
                    :y="FLOOR + 13"
                    text-anchor="middle"
                    class="fill-ink-faint text-[11px]"
                >
                    {{ plain(mark) }}
                </text>
                <rect
                    v-for="bar in bars"
                    :key="bar.from"
                    :x="bar.x"
                    :y="FLOOR - bar.height"
                    :width="bar.width"
                    :height="bar.height"
                    :class="bar.fails ? 'fill-red' : 'fill-line opacity-70'"
                >
                    <title>{{ inWords(bar.from) }} to {{ inWords(bar.to) }}: {{ atMost(bar.cases, 0) }}</title>
                </rect>
                <circle
                    v-for="(dot, index) in dots"
                    :key="index"
                    :cx="dot.x"
                    :cy="FLOOR - dot.y"
                    :r="size / 2 - 0.55"
                    :class="fails(dot.value) ? 'fill-red' : 'fill-line opacity-75'"
                    class="cursor-pointer"
                    @click="emit('pick')"
                >
                    <title>{{ plain(dot.value) }} {{ measure }}</title>
                </circle>
                <line
                    v-if="row.mean !== null"
                    :x1="x(Number(row.mean))"
                    :x2="x(Number(row.mean))"
                    y1="0"
                    :y2="FLOOR"
                    class="stroke-ink"
                    stroke-width="1.6"
                />
                <template v-if="goal !== null && goal >= ends[0] && goal <= ends[1]">
                    <line :x1="x(goal)" :x2="x(goal)" y1="0" :y2="FLOOR" class="stroke-brass" stroke-width="2" />
                    <text
                        :x="x(goal) + (x(goal) > width - 80 ? -5 : 5)"
                        y="11"
                        :text-anchor="x(goal) > width - 80 ? 'end' : 'start'"
                        class="fill-brass stroke-paper text-[12px] [paint-order:stroke]"
                        stroke-width="4"
                    >
                        goal {{ plain(goal) }}
                    </text>
                </template>
            </svg>
        </div>
        <p v-else class="text-[14px] text-ink-faint">none</p>
        <p v-if="row.mean !== null" class="text-[14px] leading-snug text-ink-soft">
            <b class="font-[650] text-ink">{{ inWords(row.mean) }} {{ measure }}</b> mean<br />
            half in {{ inWords(row.median) }}, nine in ten in {{ inWords(row.ninth) }}
            <span v-if="row.bins.length > 0" class="block text-[12.5px] text-ink-faint"
                >{{ atMost(row.cases, 0) }}: too many for dots, so put together</span
            >
        </p>
    </div>
</template>
