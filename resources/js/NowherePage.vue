<script setup lang="ts">
import StateNote from '@/components/StateNote.vue';
import { useView } from '@/composables/useView';

const { query } = useView();
</script>

<template>
    <StateNote title="There is no such screen">
        The address may be mistyped.
        <RouterLink class="quiet-link" :to="{ name: 'scorecard', query: query() }">Go to the scorecard</RouterLink>
    </StateNote>
</template>
