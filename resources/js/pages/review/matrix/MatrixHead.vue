<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { shortMonth } from '@/composables/usePeriods';

/** The head of a matrix: months of some years, or KPIs with what all of them make together. */
defineProps<{
    columns: Schemas['MatrixLine'][];
    /** what stands below it */
    corner: string;
    /** of the figures, where all have the same; blank otherwise */
    measure: string;
    /** the month that is looked at */
    chosen: string;
    /** how many months; null where KPIs stand across */
    months: number | null;
    figures: boolean;
}>();
</script>

<template>
    <thead>
        <tr role="row" class="text-[12.5px] leading-[1.15] font-medium text-ink-soft">
            <th role="columnheader" class="sticky left-0 z-10 bg-paper align-bottom print:bg-transparent">
                <span class="sr-only">{{ corner }}</span>
                <span v-if="measure" class="block pr-4 pb-1.5 text-left font-normal text-ink-faint"
                    >in {{ measure }}</span
                >
            </th>
            <th
                v-for="(column, index) in columns"
                :key="column.key"
                role="columnheader"
                class="px-1 pb-1.5 align-bottom font-semibold"
                :class="{ 'text-ink': column.key === chosen }"
            >
                <span v-if="months !== null" class="block"
                    >{{ months > 12 && !figures ? shortMonth(column.key).charAt(0) : shortMonth(column.key)
                    }}<span class="block font-normal text-ink-faint">{{
                        index === 0 || column.key.endsWith('-01')
                            ? months > 12
                                ? column.key.slice(2, 4)
                                : column.key.slice(0, 4)
                            : '&nbsp;'
                    }}</span></span
                >
                <template v-else>
                    <span class="line-clamp-3" :title="column.name">{{ column.name }}</span>
                    <span v-if="figures" class="block font-normal text-ink-faint">{{
                        column.measure || '&nbsp;'
                    }}</span>
                </template>
            </th>
            <th
                v-if="months === null"
                role="columnheader"
                class="border-l border-rule px-3 pb-1.5 align-bottom font-bold text-ink"
            >
                together
            </th>
        </tr>
    </thead>
</template>
