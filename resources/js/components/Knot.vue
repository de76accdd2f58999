<script setup lang="ts">
/** The sign of a closed month: a line made fast. */
defineProps<{ label?: string }>();
</script>

<template>
    <svg
        width="13"
        height="8"
        viewBox="0 0 13 8"
        class="inline-block shrink-0 fill-none stroke-brass align-middle"
        stroke-width="1.3"
        stroke-linecap="round"
        v-bind="label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true }"
    >
        <path d="M1 6.8c3.6 0 4.4-5.6 7.2-5.6 3.4 0 3.4 5.6 0 5.6C5.4 6.8 4.6 1.2 1 1.2" />
    </svg>
</template>
