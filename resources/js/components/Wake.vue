<script setup lang="ts">
import type { Schemas, Status } from '@/api/client';
import { course, stretches, through } from '@/graphics/lines';
import { spanned } from '@/graphics/plane';
import { number } from '@/graphics/scale';
import { DOT_FILLS } from '@/graphics/zones';
import { computed } from 'vue';

/** The last 13 months as a fine line, the target dotted, a status-coloured dot at the end. Gaps stay gaps. */
const props = withDefaults(
    defineProps<{
        points: readonly Schemas['WakePoint'][];
        status: Status;
        hideTarget?: boolean;
        width?: number;
        height?: number;
    }>(),
    { width: 124, height: 30 },
);

const MARGIN = 5;

const drawn = computed(() => {
    const actuals = props.points.map((point) => number(point.actual));
    const targets = props.points.map((point) => (props.hideTarget ? null : number(point.target)));
    const known = [...actuals, ...targets].filter((value) => value !== null);
    const plane = spanned({
        left: MARGIN,
        right: props.width - MARGIN,
        top: MARGIN,
        floor: props.height - MARGIN,
        low: Math.min(...known),
        high: Math.max(...known),
        count: props.points.length,
    });
    const last = actuals.length - 1;
    const end = actuals[last] ?? null;
    return {
        ...course(plane, actuals),
        target: stretches(targets).map((run) => through(plane, run)),
        end: end === null ? null : { x: plane.x(last), y: plane.y(end) },
    };
});
</script>

<template>
    <svg
        :viewBox="`0 0 ${width} ${height}`"
        :width="width"
        :height="height"
        class="block max-w-full"
        aria-hidden="true"
    >
        <polyline
            v-for="(run, index) in drawn.target"
            :key="`t${index}`"
            :points="run"
            class="fill-none stroke-hollow"
            stroke-dasharray="1.5 3"
        />
        <polyline
            v-for="(run, index) in drawn.lines"
            :key="`a${index}`"
            :points="run"
            class="fill-none stroke-line"
            stroke-width="1.5"
            stroke-linejoin="round"
        />
        <circle
            v-for="(point, index) in drawn.alone"
            :key="`p${index}`"
            :cx="point.x"
            :cy="point.y"
            r="1.4"
            class="fill-line"
        />
        <circle v-if="drawn.end" :cx="drawn.end.x" :cy="drawn.end.y" r="3.4" :class="DOT_FILLS[status]" />
    </svg>
</template>
