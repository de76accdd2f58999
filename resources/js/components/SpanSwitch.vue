<script setup lang="ts">
import type { Span } from '@/api/client';
import { useView } from '@/composables/useView';

const { span, here } = useView();

const SPANS: { value: Span; name: string }[] = [
    { value: 'month', name: 'Month' },
    { value: 'quarter', name: 'Quarter' },
    { value: 'yearToDate', name: 'Year to date' },
    { value: 'rolling12', name: 'Rolling 12' },
];
</script>

<template>
    <nav
        aria-label="Span"
        class="flex items-center gap-[18px] overflow-x-auto px-4 py-1 text-[14px] whitespace-nowrap md:px-[22px]"
    >
        <RouterLink
            v-for="each in SPANS"
            :key="each.value"
            :to="{ query: here({ span: each.value }) }"
            class="tab"
            active-class=""
            exact-active-class=""
            :aria-current="span === each.value ? 'page' : undefined"
        >
            {{ each.name }}
        </RouterLink>
    </nav>
</template>
