<script setup lang="ts">
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { computed } from 'vue';

/** The two ways to look at where things stand. */
defineProps<{ here: 'scorecard' | 'matrix' }>();
const { unit, query } = useView();
const { childrenOf } = useSession();

/** What has nothing below it is compared with its like. */
const comparison = computed(() =>
    childrenOf(unit.value.code).length > 0 || unit.value.parent === null
        ? query()
        : { ...query({ unit: unit.value.parent }), kind: unit.value.kind, follow: unit.value.code },
);
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
            <RouterLink class="tab" :to="{ name: 'compare', query: comparison }">Compare</RouterLink>
        </nav>
        <slot />
        <span class="flex flex-wrap items-center gap-x-5 gap-y-1 text-ink-soft lg:ml-auto"><slot name="right" /></span>
    </div>
</template>
