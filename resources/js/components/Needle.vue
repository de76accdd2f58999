<script setup lang="ts">
import type { Status } from '@/api/client';
import { computed } from 'vue';

/** The status mark: a tile with a needle. Upright is on course, tilted drifting, lying across off course. */
const props = withDefaults(defineProps<{ status: Status; size?: 's' | 'm' | 'l'; decorative?: boolean }>(), {
    size: 'm',
});

const PIXELS = { s: 17, m: 22, l: 32 };
const LOOK = {
    green: { tilt: 0, tile: 'fill-green', name: 'Green: on course' },
    amber: { tilt: 38, tile: 'fill-amber', name: 'Amber: drifting' },
    red: { tilt: 90, tile: 'fill-red', name: 'Red: off course' },
    'not-judged': { tilt: null, tile: '', name: 'Not judged' },
    'no-data': { tilt: null, tile: '', name: 'No reading' },
};

const look = computed(() => LOOK[props.status]);
const pixels = computed(() => PIXELS[props.size]);
const labels = computed(() =>
    props.decorative ? { 'aria-hidden': true } : { role: 'img', 'aria-label': look.value.name },
);
</script>

<template>
    <svg
        :width="pixels"
        :height="pixels"
        viewBox="0 0 20 20"
        class="inline-block shrink-0 align-middle"
        v-bind="labels"
        :data-status="status"
    >
        <template v-if="look.tilt !== null">
            <rect x="1" y="1" width="18" height="18" rx="5" :class="look.tile" />
            <path
                d="M10 3.6 L12.1 10 L10 16.4 L7.9 10Z"
                class="fill-on-status"
                :transform="`rotate(${look.tilt} 10 10)`"
            />
        </template>
        <template v-else-if="status === 'not-judged'">
            <rect
                x="1.7"
                y="1.7"
                width="16.6"
                height="16.6"
                rx="4.5"
                class="fill-none stroke-hollow"
                stroke-width="1.3"
            />
            <circle cx="10" cy="10" r="2" class="fill-hollow" />
        </template>
        <rect
            v-else
            x="1.7"
            y="1.7"
            width="16.6"
            height="16.6"
            rx="4.5"
            class="fill-none stroke-hollow"
            stroke-width="1.3"
            stroke-dasharray="2.6 2.4"
        />
    </svg>
</template>
