<script setup lang="ts">
import type { Schemas } from '@/api/client';
import Knot from '@/components/Knot.vue';
import { shortMonth } from '@/composables/usePeriods';

/** The head of the year grid: its columns, the chosen month marked, closed ones knotted. */
const { weekly } = defineProps<{
    name: string;
    columns: Schemas['GridColumn'][];
    /** the month that is looked at */
    chosen: string;
    weekly: boolean;
    /** what the last column adds up */
    total: string;
}>();

const label = (column: Schemas['GridColumn']): string => (weekly ? column.period.slice(5) : shortMonth(column.period));
</script>

<template>
    <div
        role="row"
        aria-rowindex="1"
        class="sticky top-0 z-20 flex min-w-max border-b border-rule bg-paper text-[13px] font-semibold text-ink-soft"
    >
        <div
            role="columnheader"
            aria-colindex="1"
            class="sticky left-0 z-10 w-[232px] shrink-0 max-md:w-[150px] max-md:border-r max-md:border-rule truncate bg-paper px-[10px] py-[6px] font-medium"
        >
            {{ name }}
        </div>
        <div
            v-for="(column, index) in columns"
            :key="column.period"
            role="columnheader"
            :aria-colindex="index + 2"
            class="w-(--cell) shrink-0 grow border-l border-rule-soft px-[9px] py-[6px] text-right whitespace-nowrap"
            :class="
                column.month === chosen ? 'bg-sheet font-bold text-ink shadow-[inset_0_3px_0_var(--color-brass)]' : ''
            "
        >
            {{ label(column) }}<Knot v-if="column.closed" label="closed" class="ml-1" />
        </div>
        <div
            role="columnheader"
            :aria-colindex="columns.length + 2"
            class="w-(--total) shrink-0 border-l border-rule px-[9px] py-[6px] text-right"
        >
            {{ total }}
        </div>
    </div>
</template>
