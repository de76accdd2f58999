<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import ActionLine from '@/pages/review/kpi/ActionLine.vue';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import NoteList from '@/components/NoteList.vue';
import StateNote from '@/components/StateNote.vue';
import { unbroken, useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';

/** What stands behind a row: the sentence that judges it, the months of its year, the notes. */
const props = defineProps<{ row: Schemas['ScorecardRow'] }>();

const { period, span, query } = useView();
const { figure } = useNumbers();

const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['row', props.row.id, period.value, span.value]),
    queryFn: () =>
        read(
            api.GET('/api/measurements/{measurement}', {
                params: { path: { measurement: props.row.id }, query: { period: period.value, span: span.value } },
            }),
        ),
});

const GATHERED = {
    sum: 'periods are added up',
    mean: 'the mean of the periods',
    latest: 'the latest period stands',
    maximum: 'the highest period stands',
    minimum: 'the lowest period stands',
    recompute: 'worked out again from what goes in',
};
const gathered = computed(() => GATHERED[(data.value?.accumulation ?? 'sum') as keyof typeof GATHERED]);

/** What was known then; a note that came later is not read into the past. */
const notes = computed(() =>
    (data.value?.notes ?? []).filter((note) => !/^\d{4}-\d\d$/.test(note.period) || note.period <= period.value),
);

/** Lines without a single figure are left out: a judged KPI has none, and many have no target or no last year. */
const LINES = [
    { of: 'actual', words: 'actual' },
    { of: 'target', words: 'target' },
    { of: 'prior', words: 'last year' },
] as const;
const lines = computed(() => LINES.filter(({ of }) => data.value?.months.some((month) => month[of] !== null)));
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error" :error="error" @retry="refetch" />
    <div v-else-if="data" class="space-y-3">
        <p class="max-w-[62em] text-[15px]">
            <b class="font-[650]">{{ unbroken(data.verdict.reason) }}</b> {{ data.verdict.streak }}
            <span class="text-ink-soft">{{ data.purpose }} Over a longer span, {{ gathered }}.</span>
        </p>
        <div class="overflow-x-auto">
            <table class="w-full min-w-[720px] table-fixed border-collapse text-right text-[14px]">
                <thead>
                    <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                        <th class="w-[76px] text-left"><span class="sr-only">Month</span></th>
                        <th
                            v-for="month in data.months"
                            :key="month.period"
                            scope="col"
                            :class="{ 'text-ink': month.period === period }"
                        >
                            {{ shortMonth(month.period) }}
                        </th>
                    </tr>
                </thead>
                <tbody
                    class="[&_td]:h-[25px] [&_td]:border-t [&_td]:border-rule-soft [&_td]:whitespace-nowrap [&_th]:text-left [&_th]:text-[12.5px] [&_th]:font-normal [&_th]:text-ink-faint"
                >
                    <tr>
                        <th scope="row">status</th>
                        <td v-for="month in data.months" :key="month.period">
                            <Needle v-if="month.actual || month.period <= period" :status="month.status" size="s" />
                        </td>
                    </tr>
                    <tr
                        v-for="line in lines"
                        :key="line.words"
                        :class="line.of === 'actual' ? 'font-semibold' : 'text-ink-soft'"
                    >
                        <th scope="row">{{ line.words }}</th>
                        <td v-for="month in data.months" :key="month.period">
                            {{ month[line.of] ? figure(month[line.of]!) : '' }}
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
        <div class="flex flex-wrap gap-x-10 gap-y-3">
            <section v-if="data.drivers.length > 0" class="w-[300px]" aria-label="What drives it">
                <p class="text-[13px] text-ink-faint">what drives it</p>
                <p v-for="driver in data.drivers" :key="driver.id" class="flex items-center gap-2 py-[2px]">
                    <Needle :status="driver.status" size="s" />
                    <KpiLink class="min-w-0 grow truncate hover:text-brass" :code="driver.code" :unit="driver.unit">{{
                        driver.name
                    }}</KpiLink>
                    <span class="text-ink-soft">{{ driver.actual ? figure(driver.actual, driver.measure) : '' }}</span>
                </p>
            </section>
            <section v-if="data.actions.length > 0" class="min-w-[260px] grow" aria-label="What is being done">
                <p class="text-[13px] text-ink-faint">what is being done</p>
                <ActionLine v-for="action in data.actions" :key="action.id" :action="action" class="py-[2px]" />
            </section>
        </div>
        <NoteList v-if="notes.length > 0" :notes="notes" />
        <p v-else class="text-[14px] text-ink-faint">No notes in the last two years.</p>
        <p class="text-[14px]">
            <KpiLink class="quiet-link mr-5 text-brass" :code="row.code" :unit="row.unit">The page of this KPI</KpiLink>
            <RouterLink
                v-if="data.counted"
                class="quiet-link mr-5 text-brass"
                :to="{
                    name: 'course',
                    params: { code: row.code },
                    query: { ...query({ unit: row.unit }), look: 'records' },
                }"
                >The records behind it</RouterLink
            >
            <RouterLink class="quiet-link" :to="{ name: 'kpi', params: { code: row.code }, query: query() }"
                >How it is defined</RouterLink
            >
        </p>
    </div>
</template>
