<script setup lang="ts">
import type { Schemas } from '@/api/client';
import CourseStrip from '@/components/CourseStrip.vue';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import { movedWords } from '@/composables/useNumbers';
import { useView } from '@/composables/useView';
import { countWords } from '@/words';

/** A department in a line: how it stands, how its KPIs stand, and the one that lies furthest off course. */
defineProps<{
    unit: Schemas['UnitLine'];
    /** the row of that KPI */
    worst: Schemas['ScorecardRow'] | undefined;
    /** how many the table has */
    columns: number;
    hideTargets: boolean;
    hidePrior: boolean;
}>();

const { here } = useView();
</script>

<template>
    <tr
        class="text-left hover:bg-sheet max-md:grid max-md:grid-cols-[34px_minmax(0,1fr)] max-md:border-t max-md:border-rule-soft max-md:py-1 [&>td]:border-rule-soft [&>td]:align-middle [&>td]:md:h-[43px] [&>td]:md:border-t"
    >
        <td class="max-md:row-span-2 max-md:content-center"><Needle :status="unit.status" /></td>
        <td class="pr-3 pl-[2px]">
            <RouterLink
                :to="{ query: here({ unit: unit.code }) }"
                class="block truncate font-serif text-[16px] leading-tight font-semibold hover:text-brass"
                >{{ unit.name }}</RouterLink
            >
            <span class="block truncate text-[12.5px] leading-[1.15] text-ink-faint">{{
                countWords(unit.counts)
            }}</span>
        </td>
        <td class="hidden overflow-hidden pr-4 pl-4 md:table-cell">
            <CourseStrip v-if="worst" :row="worst" :hide-target="hideTargets" :hide-prior="hidePrior" />
        </td>
        <td :colspan="columns - 3" class="max-md:pl-[2px] md:pl-3">
            <span v-if="worst" class="block truncate text-[14.5px] leading-tight"
                ><span class="text-ink-faint">{{
                    (worst.course?.now ?? 0) > 0 ? 'furthest off: ' : 'nearest to its limit: '
                }}</span
                ><KpiLink class="quiet-link" :code="worst.code" :unit="worst.unit">{{ worst.name }}</KpiLink></span
            >
            <span class="block truncate text-[12.5px] leading-[1.25] text-ink-soft">{{ movedWords(unit.moved) }}</span>
            <CourseStrip
                v-if="worst"
                class="mt-1 max-w-[116px] md:hidden"
                :row="worst"
                :hide-target="hideTargets"
                hide-prior
                short
            />
        </td>
    </tr>
</template>
