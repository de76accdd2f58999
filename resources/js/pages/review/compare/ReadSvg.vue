<script setup lang="ts">
import type { Points } from './usePoints';

/** A drawing whose points are read one by one, by pointer and by keyboard. */
defineProps<{ label: string; width: number; height: number; points: Points }>();
</script>

<template>
    <svg
        :width="width"
        :height="height"
        class="block max-w-full cursor-crosshair text-[12px]"
        tabindex="0"
        role="group"
        :aria-label="label"
        @keydown="points.onKey"
        @mousemove="points.onMove"
        @mouseleave="points.onLeave"
        @blur="points.onLeave"
        @click="points.onPick"
    >
        <slot />
    </svg>
</template>
