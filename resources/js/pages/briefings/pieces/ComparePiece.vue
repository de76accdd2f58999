<script setup lang="ts">
import CompareTable from '@/pages/review/compare/CompareTable.vue';
import RanksOverTime from '@/pages/review/compare/RanksOverTime.vue';
import SpreadLines from '@/pages/review/compare/SpreadLines.vue';
import TwoAgainst from '@/pages/review/compare/TwoAgainst.vue';
import WhatItIsWorth from '@/pages/review/compare/WhatItIsWorth.vue';
import { useGivenComparison } from '@/pages/review/compare/useComparison';
import { computed } from 'vue';
import { choiceOf, usePage, type PieceProps } from '../usePage';

/** Like units beside each other, as on Compare; the unit that is followed there is followed here. */
const props = defineProps<PieceProps>();
const page = usePage();
const view = useGivenComparison(
    () => props.answer.comparison,
    () => props.answer.ranks,
    page.follow,
);
const graphic = computed(() => choiceOf(props.piece, 'graphic', 'spread'));
</script>

<template>
    <p v-if="view.kpis.length === 0" class="py-4 text-ink-soft">
        Nothing under {{ answer.unitName }} can be compared on these.
    </p>
    <SpreadLines v-else-if="graphic === 'spread'" />
    <CompareTable v-else-if="graphic === 'table'" :title="piece.title || 'Units beside each other'" :beside="0" />
    <RanksOverTime v-else-if="graphic === 'ranks' && view.kpis[0]" :kpi="view.kpis[0]" />
    <TwoAgainst v-else-if="graphic === 'two' && view.axes" :lying="view.axes[0]" :standing="view.axes[1]" />
    <p v-else-if="graphic === 'two'" class="py-4 text-ink-soft">Two KPIs are needed to hold them against each other.</p>
    <table v-else-if="graphic === 'worth'" role="grid" class="mt-1 w-full border-collapse text-[14px]">
        <thead>
            <tr role="row" class="text-[13px] text-ink-soft">
                <th role="columnheader" class="w-[170px]"><span class="sr-only">If the worse reached</span></th>
                <th
                    v-for="kpi in view.kpis"
                    :key="kpi.code"
                    role="columnheader"
                    class="pb-1 pl-3 text-right align-bottom font-semibold"
                >
                    {{ kpi.name }} <span class="block font-normal text-ink-faint">{{ kpi.measure }}</span>
                </th>
            </tr>
        </thead>
        <WhatItIsWorth :sticks="false" />
    </table>
</template>
