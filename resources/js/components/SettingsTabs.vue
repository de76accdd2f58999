<script setup lang="ts">
/** The ways to what an administrator sees to. */
defineProps<{ here: 'organisation' | 'units' | 'people' | 'programs' }>();
const TABS = [
    ['organisation', 'settings', 'Organisation'],
    ['units', 'units', 'Units'],
    ['people', 'people', 'People'],
    ['programs', 'programs', 'Programs'],
] as const;
</script>

<template>
    <nav aria-label="Settings" class="mb-3 flex flex-wrap gap-x-[18px] gap-y-1 print:hidden">
        <RouterLink
            v-for="[name, route, title] in TABS"
            :key="name"
            class="tab"
            :to="{ name: route }"
            :aria-current="here === name ? 'page' : undefined"
            >{{ title }}</RouterLink
        >
    </nav>
</template>
