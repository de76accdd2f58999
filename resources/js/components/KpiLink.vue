<script setup lang="ts">
import { useView } from '@/composables/useView';

/**
 * Leads to the page of a KPI in a unit, at the month and span that are looked at. It follows them by itself: what stands
 * around it is not drawn anew when they change.
 */
defineProps<{ code: string; unit: string }>();

const { query } = useView();
</script>

<template>
    <RouterLink :to="{ name: 'course', params: { code }, query: query({ unit }) }"><slot /></RouterLink>
</template>
