<script setup lang="ts">
import type { Status } from '@/api/client';

/** The status mark: a tile with a needle. Upright is on course, tilted drifting, lying across off course. */
const props = withDefaults(
    defineProps<{
        status: Status;
        size?: 's' | 'm' | 'l';
        decorative?: boolean;
        /** a green that has reached its stretch: a small star */
        stretched?: boolean;
        /** a person's call over what was computed: a small ring, drawn by hand */
        called?: boolean;
    }>(),
    { size: 'm' },
);

const PIXELS = { s: 17, m: 22, l: 32 };
const LOOK = {
    green: { tilt: 0, tile: 'fill-green', name: 'Green: on course' },
    amber: { tilt: 38, tile: 'fill-amber', name: 'Amber: drifting' },
    red: { tilt: 90, tile: 'fill-red', name: 'Red: off course' },
    'not-judged': { tilt: null, tile: '', name: 'Not judged' },
    'no-data': { tilt: null, tile: '', name: 'No reading' },
};

// A screen has hundreds of needles: what is worked out so fast is not kept.
const name = (): string =>
    `${LOOK[props.status].name}${props.stretched ? ', stretch reached' : ''}${props.called ? ", a person's call" : ''}`;
</script>

<template>
    <svg
        :width="PIXELS[size]"
        :height="PIXELS[size]"
        viewBox="0 0 20 20"
        class="inline-block shrink-0 overflow-visible align-middle"
        :role="decorative ? undefined : 'img'"
        :aria-hidden="decorative || undefined"
        :aria-label="decorative ? undefined : name()"
        :data-status="status"
    >
        <template v-if="LOOK[status].tilt !== null">
            <rect x="1" y="1" width="18" height="18" rx="5" :class="LOOK[status].tile" />
            <path
                d="M10 3.6 L12.1 10 L10 16.4 L7.9 10Z"
                class="fill-on-status"
                :transform="`rotate(${LOOK[status].tilt} 10 10)`"
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
        <path
            v-if="stretched"
            d="M17.5 -2.2l1.5 3 3.3.5-2.4 2.3.6 3.3-3-1.6-3 1.6.6-3.3-2.4-2.3 3.3-.5z"
            class="fill-brass stroke-paper"
            stroke-width="0.9"
            stroke-linejoin="round"
        />
        <path
            v-if="called"
            d="M3.4 -1.6C-2.9 1.2 -4.3 13.2 1.2 19.4 C6.6 24.4 18.4 23.6 21.6 17 C25 9.6 22.4 -0.6 14.6 -2.5 C9.6 -3.6 5 -2.4 1.8 0.8"
            class="fill-none stroke-brass"
            stroke-width="1.5"
            stroke-linecap="round"
        />
    </svg>
</template>
