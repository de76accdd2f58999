<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useLocalStorage, useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import CourseLegend from './CourseLegend.vue';
import ScorecardTable from './ScorecardTable.vue';
import SummarySentence from './SummarySentence.vue';
import UnitLines from './UnitLines.vue';

const { unit, period, span, query } = useView();
const { user } = useSession();
const hideTargets = useLocalStorage('kybernet:hide-targets', false);
const opened = ref<number | null>(null);

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['scorecard', unit.value.code, period.value, span.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/scorecard', {
                params: { path: { unit: unit.value.code }, query: { period: period.value, span: span.value } },
            }),
        ),
    placeholderData: keepPreviousData,
});

const SPAN_WORDS = {
    month: () => monthAndYear(period.value),
    quarter: () => `quarter to ${monthAndYear(period.value)}`,
    yearToDate: () => 'year to date',
    rolling12: () => `twelve months to ${monthAndYear(period.value)}`,
};
const title = computed(() => `${unit.value.name}, ${SPAN_WORDS[span.value]()}`);
useTitle(computed(() => `${title.value} · Kybernet`));

const isEmpty = computed(
    () => data.value !== undefined && data.value.groups.length === 0 && data.value.units.length === 0,
);

watch(
    () => unit.value.code,
    () => (opened.value = null),
);
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">{{ title }}</h1>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote v-else-if="isEmpty" title="Nothing is measured here yet">
        <template v-if="user?.defines">
            Define what {{ unit.name }} tracks in the
            <RouterLink class="quiet-link" :to="{ name: 'register', query: query() }">Register</RouterLink>, and it
            appears here.
        </template>
        <template v-else>A performance analyst can define what {{ unit.name }} tracks.</template>
    </StateNote>
    <div v-else-if="data" :class="{ 'opacity-60': isPlaceholderData }" class="transition-opacity">
        <SummarySentence :page="data" class="mt-[5px] mb-3" />
        <template v-if="data.groups.length > 0">
            <CourseLegend v-model:hide-targets="hideTargets" />
            <ScorecardTable v-model:opened="opened" :groups="data.groups" :hide-targets="hideTargets" />
        </template>
        <UnitLines v-if="data.units.length > 0" :units="data.units" :of="unit.name" />
    </div>
</template>
