<script setup lang="ts">
import { SPANS } from '@/words';
import { useView } from '@/composables/useView';

const { span, here } = useView();
</script>

<template>
    <nav
        aria-label="Span"
        class="flex items-center gap-[18px] overflow-x-auto px-4 py-1 text-[14px] whitespace-nowrap md:px-[22px]"
    >
        <RouterLink
            v-for="(name, each) in SPANS"
            :key="each"
            :to="{ query: here({ span: each }) }"
            class="tab"
            active-class=""
            exact-active-class=""
            :aria-current="span === each ? 'page' : undefined"
        >
            {{ name }}
        </RouterLink>
    </nav>
</template>
