<script setup lang="ts">
import type { Schemas, Status } from '@/api/client';
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
const DOT = {
    green: 'fill-green',
    amber: 'fill-amber',
    red: 'fill-red',
    'not-judged': 'fill-hollow',
    'no-data': 'fill-hollow',
};

interface Place {
    x: number;
    y: number;
}

const drawn = computed(() => {
    const actuals = props.points.map((point) => (point.actual === null ? null : Number(point.actual)));
    const targets = props.points.map((point) =>
        point.target === null || props.hideTarget ? null : Number(point.target),
    );
    const known = [...actuals, ...targets].filter((value) => value !== null);
    const low = Math.min(...known);
    const spread = Math.max(...known) - low || 1;
    const place = (value: number, index: number): Place => ({
        x: MARGIN + (index * (props.width - 2 * MARGIN)) / Math.max(1, props.points.length - 1),
        y: props.height - MARGIN - ((value - low) / spread) * (props.height - 2 * MARGIN),
    });
    // Unbroken runs of months, each a line of its own.
    const runs = (values: (number | null)[]): Place[][] => {
        const found: Place[][] = [[]];
        values.forEach((value, index) => (value === null ? found.push([]) : found.at(-1)?.push(place(value, index))));
        return found.filter((run) => run.length > 0);
    };
    const path = (run: Place[]): string => run.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');
    const last = actuals.length - 1;
    const end = actuals[last] ?? null;
    return {
        actual: runs(actuals)
            .filter((run) => run.length > 1)
            .map(path),
        // A single month between gaps would be no line at all.
        alone: runs(actuals)
            .filter((run) => run.length === 1)
            .flat(),
        target: runs(targets).map(path),
        end: end === null ? null : place(end, last),
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
            v-for="(run, index) in drawn.actual"
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
        <circle v-if="drawn.end" :cx="drawn.end.x" :cy="drawn.end.y" r="3.4" :class="DOT[status]" />
    </svg>
</template>
