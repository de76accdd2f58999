<script setup lang="ts">
import { useView } from '@/composables/useView';
import { useLeadsNowhere } from '@/composables/useVisit';

/**
 * Leads to the page of a KPI in a unit, at the month and span that are looked at. It follows them by itself: what stands
 * around it is not drawn anew when they change. Who reads without an account is led nowhere.
 */
defineProps<{ code: string; unit: string }>();

const { query } = useView();
const isPlain = useLeadsNowhere();
</script>

<template>
    <span v-if="isPlain"><slot /></span>
    <RouterLink v-else :to="{ name: 'course', params: { code }, query: query({ unit }) }"><slot /></RouterLink>
</template>
