<script setup lang="ts">
import { useCompared } from './useComparison';

/** What stands over a graphic: its title, what is to be known of it, and the way to the table behind it. */
defineProps<{ title: string; table: boolean; id: string }>();
defineEmits<{ turn: [] }>();
const { bare } = useCompared();
</script>

<template>
    <div class="flex items-baseline gap-4">
        <h2 :id="id" class="min-w-0 text-[18px] leading-tight" :class="{ 'sr-only': bare }">{{ title }}</h2>
        <p v-if="bare" class="text-[13.5px] leading-snug text-ink-soft"><slot /></p>
        <button
            type="button"
            class="quiet-link ml-auto shrink-0 text-[13px] text-ink-faint print:hidden"
            :aria-pressed="table"
            @click="$emit('turn')"
        >
            {{ table ? 'as a drawing' : 'as a table' }}
        </button>
    </div>
    <p v-if="!bare" class="mt-0.5 mb-1.5 text-[13.5px] leading-snug text-ink-soft"><slot /></p>
</template>
