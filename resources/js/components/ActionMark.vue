<script setup lang="ts">
/** A small flag: something is being done about it. */
defineProps<{ overdue?: boolean }>();
</script>

<template>
    <svg
        width="13"
        height="15"
        viewBox="0 0 13 15"
        class="inline"
        role="img"
        :aria-label="overdue ? 'has an action that is overdue' : 'has an action'"
    >
        <path
            d="M2 14V1.5h9L8.4 5 11 8.5H2"
            :class="overdue ? 'fill-red-zone stroke-red' : 'fill-brass-tint stroke-brass'"
            stroke-width="1.2"
            stroke-linejoin="round"
        />
    </svg>
</template>
