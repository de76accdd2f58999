<script setup lang="ts">
import { useView } from '@/composables/useView';

/** The two ways to look at where things stand. */
defineProps<{ here: 'scorecard' | 'matrix' }>();
const { query } = useView();
</script>

<template>
    <div
        class="mb-2 flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-rule pt-[7px] text-[14px] print:hidden"
    >
        <nav class="flex gap-5 border-r border-rule pr-5" aria-label="Ways to look at it">
            <RouterLink
                v-for="(words, name) in { scorecard: 'Scorecard', matrix: 'Matrix' }"
                :key="name"
                class="tab"
                active-class=""
                exact-active-class=""
                :aria-current="here === name ? 'page' : undefined"
                :to="{ name, query: query() }"
                >{{ words }}</RouterLink
            >
        </nav>
        <slot />
        <span class="flex flex-wrap items-center gap-x-5 gap-y-1 text-ink-soft lg:ml-auto"><slot name="right" /></span>
    </div>
</template>
