<script setup lang="ts">
/** The target as a line across a drawing, or where units have their own the band that they lie in. */
defineProps<{ x: number; y: number; width: number; height: number }>();
const THIN = 1.5;
</script>

<template>
    <line
        v-if="width < THIN || height < THIN"
        :x1="x"
        :y1="y"
        :x2="width < THIN ? x : x + width"
        :y2="height < THIN ? y : y + height"
        class="stroke-brass"
        stroke-width="1.6"
    />
    <rect v-else :x="x" :y="y" :width="width" :height="height" class="fill-brass opacity-10" />
</template>
