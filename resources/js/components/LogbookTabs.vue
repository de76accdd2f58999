<script setup lang="ts">
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import ExportMenu from './ExportMenu.vue';

/** The ways into the logbook: a month, a year, a file. */
defineProps<{ here: 'month' | 'year' | 'import' }>();
const { query, unit, period } = useView();
const { user } = useSession();
const TABS = [
    ['month', 'logbook', 'Month sheet'],
    ['year', 'year-grid', 'Year grid'],
] as const;
</script>

<template>
    <div class="flex flex-wrap items-center gap-x-[18px] gap-y-2 py-[9px] print:hidden">
        <nav aria-label="Logbook" class="flex gap-x-[18px]">
            <RouterLink
                v-for="[name, route, title] in TABS"
                :key="name"
                class="tab"
                :to="{ name: route, query: query() }"
                :aria-current="here === name ? 'page' : undefined"
                >{{ title }}</RouterLink
            >
        </nav>
        <slot />
        <div class="ml-auto flex flex-wrap items-center gap-x-[18px] gap-y-2 text-[13.5px] text-ink-soft">
            <RouterLink
                v-if="user?.logs"
                class="quiet-link"
                :to="{ name: 'import', query: query() }"
                :aria-current="here === 'import' ? 'page' : undefined"
                >Import</RouterLink
            >
            <ExportMenu :path="`/api/units/${unit.code}/figures`" :query="{ period }" />
            <slot name="right" />
        </div>
    </div>
</template>
