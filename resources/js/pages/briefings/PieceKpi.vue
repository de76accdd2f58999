<script setup lang="ts">
import KpiLink from '@/components/KpiLink.vue';

/** The name of a KPI, which leads to its page. */
defineProps<{ code: string; unit: string }>();
</script>

<template>
    <KpiLink class="hover:text-brass" :code="code" :unit="unit"><slot /></KpiLink>
</template>
