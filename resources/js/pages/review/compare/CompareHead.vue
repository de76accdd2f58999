<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { capital, counted, useNumbers } from '@/composables/useNumbers';
import { computed } from 'vue';
import { useCompared, type ComparedKpi } from './useComparison';

/** The whole in one sentence: whether it is always the same one, and what it would be worth to bring the worse ones along. */
const view = useCompared();
const props = defineProps<{ kindOne: string }>();
const { figure, unitOf } = useNumbers();

const MOST = 2;
const again = computed(() => {
    if (view.units.length === 1) {
        return `There is no other ${props.kindOne} here to hold it against.`;
    }
    if (view.kpis.every(({ figures }) => figures === 0)) {
        return 'No figure has come in yet.';
    }
    const found = view.page?.recurring;
    if (found == null) {
        return `No ${props.kindOne} is among the worst tenth of more than one.`;
    }
    const at = view.units.findIndex(({ code }) => code === found.code);
    const name = view.names[at] ?? '';
    return found.last === found.worst
        ? `${name} is last in ${counted(found.last)} of ${counted(found.of)}.`
        : `${name} is among the worst tenth in ${counted(found.worst)} of ${counted(found.of)}.`;
});
/** Totals alone can be told in a sentence: so many fewer, so many more. */
const worth = computed(() => {
    const told = (kpi: ComparedKpi, gain: Schemas['CompareGain']): string => {
        const size = { ...gain.change, digits: gain.change.digits.replace('-', '') };
        const things = unitOf(kpi.measure);
        const less = /\./.test(size.digits) || size.suffix !== '' || things === '' ? 'less' : 'fewer';
        const words = `${figure(size, kpi.measure)} ${things}`.trim();
        return `${words} ${kpi.polarity === 'higher' ? 'more' : less}`;
    };
    return view.kpis
        .flatMap((kpi) =>
            kpi.total && kpi.toMedian !== null && kpi.toMedian.units > 0 ? [told(kpi, kpi.toMedian)] : [],
        )
        .slice(0, MOST)
        .join(' and ');
});
</script>

<template>
    <p class="mt-[5px] mb-2 max-w-[70em] text-[17px]">
        {{ capital(again) }}
        <template v-if="worth">
            <b class="font-[650]">If each {{ kindOne }} had at least reached the median:</b> {{ worth }}.
        </template>
    </p>
</template>
