<script setup lang="ts">
import { useView } from '@/composables/useView';
import Finder from './Finder.vue';
import UnitPath from './UnitPath.vue';
import UserMenu from './UserMenu.vue';
import Wordmark from './Wordmark.vue';

const { query } = useView();
</script>

<template>
    <header
        class="flex min-h-[52px] flex-wrap items-center gap-x-[22px] gap-y-1 bg-sea px-4 py-1.5 text-on-sea md:px-[22px]"
    >
        <RouterLink :to="{ name: 'scorecard', query: query() }" aria-label="Kybernet, to the scorecard"
            ><Wordmark
        /></RouterLink>
        <UnitPath class="order-last w-full md:order-none md:w-auto" />
        <Finder class="ml-auto" />
        <UserMenu />
    </header>
</template>
