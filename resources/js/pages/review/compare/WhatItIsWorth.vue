<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';
import { useCompared, type ComparedKpi } from './useComparison';

/** What it would be worth if every unit that is worse had reached a level: at the foot of each KPI's column. */
const view = useCompared();
defineProps<{ sticks: boolean }>();
const { signed, unitOf } = useNumbers();

const LEVELS = { median: 'the median', quarter: 'the best quarter', target: 'its own target' } as const;
const gainOf = (kpi: ComparedKpi): Schemas['CompareGain'] | null =>
    ({ median: kpi.toMedian, quarter: kpi.toBestQuarter, target: kpi.toTarget })[view.level];
const cells = computed(() =>
    view.kpis.map((kpi) => {
        const gain = gainOf(kpi);
        const written = (shown: Schemas['Shown'] | null | undefined): string =>
            shown && gain && gain.units > 0 ? signed(shown, kpi.measure) : '–';
        const kept = written(gain?.toYearEnd);
        const what = kpi.total ? 'of all together' : 'of their mean';
        const measure = unitOf(kpi.measure);
        return {
            code: kpi.code,
            change: gain?.units === 0 ? 'nothing' : written(gain?.change),
            worse: gain === null || gain.units === 0 ? '' : `${gain.units} worse`,
            kept,
            said:
                gain === null
                    ? `${kpi.name}: nothing can be said`
                    : `${kpi.name}: ${gain.units} are worse; ${written(gain.change)} ${measure} ${what}${kept === '–' ? '' : `, ${kept} ${measure} to the year end`}`,
        };
    }),
);
</script>

<template>
    <tfoot class="bg-paper print:bg-transparent" :class="{ 'sticky bottom-0 z-10 print:static': sticks }">
        <tr role="row">
            <th
                role="rowheader"
                scope="row"
                class="border-t border-rule py-1.5 pr-1 text-left text-[13px] leading-tight font-normal text-ink-soft"
            >
                Had the worse reached
                <select
                    v-model="view.level"
                    aria-label="The level that the worse ones reach"
                    class="field mt-0.5 !h-[26px] !min-h-0 w-full !px-1 !py-0 text-[13px] text-ink"
                >
                    <option v-for="(words, level) in LEVELS" :key="level" :value="level">{{ words }}</option>
                </select>
                <span class="hidden print:inline">{{ LEVELS[view.level] }}</span>
            </th>
            <td
                v-for="cell in cells"
                :key="cell.code"
                role="gridcell"
                class="border-t border-rule py-1.5 pl-3 text-right align-top leading-tight"
                :title="cell.said"
            >
                <b class="font-[650]">{{ cell.change }}</b>
                <span class="block text-[12.5px] text-ink-faint">{{ cell.worse }}</span>
            </td>
        </tr>
        <tr role="row">
            <th
                role="rowheader"
                scope="row"
                class="border-b border-rule pb-1.5 text-left text-[13px] leading-tight font-normal text-ink-soft"
            >
                kept up to the year end
            </th>
            <td
                v-for="cell in cells"
                :key="cell.code"
                role="gridcell"
                class="border-b border-rule pb-1.5 pl-3 text-right text-ink-soft"
            >
                {{ cell.kept }}
            </td>
        </tr>
    </tfoot>
</template>
