<script setup lang="ts">
/** A point that is read or followed, with its name beside it, on the side where there is room. */
defineProps<{ x: number; y: number; text: string; isFollowed: boolean; isRight: boolean; lift: number }>();
</script>

<template>
    <circle
        :cx="x"
        :cy="y"
        r="6"
        :class="isFollowed ? 'fill-brass stroke-ink' : 'fill-paper stroke-ink'"
        stroke-width="1.5"
    />
    <text
        :x="x + (isRight ? -10 : 10)"
        :y="y + lift"
        :text-anchor="isRight ? 'end' : 'start'"
        class="fill-ink stroke-paper text-[12.5px] font-semibold [paint-order:stroke]"
        stroke-width="4"
    >
        {{ text }}
    </text>
</template>
