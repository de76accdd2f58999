<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import Needle from '@/components/Needle.vue';
import StateNote from '@/components/StateNote.vue';
import Wake from '@/components/Wake.vue';
import { capital, unbroken, useNumbers } from '@/composables/useNumbers';
import { STATUSES } from '@/words';
import { monthAndYear, periodLabel } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { computed } from 'vue';

/** What stands behind a cell: the figure, the status and why, the notes then and since, what each colour means. */
const props = defineProps<{
    cell: Schemas['MatrixCell'] | null;
    place: { unit: string; kpi: string; month: string };
    /** what the unit is called while names are masked */
    masked: string;
}>();
defineEmits<{ close: []; cross: [to: Schemas['MatrixPage']['crossing']] }>();

const { span, query } = useView();
const { units } = useSession();
const { figure, unitOf } = useNumbers();
const id = computed(() => props.cell?.id ?? 0);

const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['row', id.value, props.place.month, span.value]),
    queryFn: () =>
        read(
            api.GET('/api/measurements/{measurement}', {
                params: { path: { measurement: id.value }, query: { period: props.place.month, span: span.value } },
            }),
        ),
    enabled: computed(() => id.value > 0),
    placeholderData: keepPreviousData,
});
const unitName = computed(() => props.masked || (units.value.get(props.place.unit)?.name ?? props.place.unit));
const notes = computed(() => {
    const all = data.value?.notes ?? [];
    const own = all.filter(
        ({ period }) => period === props.place.month || period.startsWith('FY') || period.includes('W'),
    );
    const since = all.filter(({ period }) => !own.some((note) => note.period === period) && period > props.place.month);
    const before = all
        .filter(({ period }) => period < props.place.month && !own.some((note) => note.period === period))
        .slice(0, 2);
    return [...own.slice(0, 3), ...since, ...before];
});
</script>

<template>
    <aside
        class="w-full shrink-0 border-rule text-[15px] lg:w-[300px] lg:border-l lg:pl-[22px]"
        aria-label="The cell in focus"
    >
        <div class="flex items-start gap-3">
            <h2 class="grow text-[20px] leading-tight">{{ unitName }}</h2>
            <button
                type="button"
                class="text-[20px] leading-none text-ink-soft hover:text-brass"
                aria-label="Close the panel"
                @click="$emit('close')"
            >
                ×
            </button>
        </div>
        <template v-if="cell === null"><p class="mt-1 text-ink-soft">Not measured here.</p></template>
        <template v-else-if="cell.id === null">
            <p class="text-[14px] text-ink-soft">All KPIs rolled up, {{ monthAndYear(place.month) }}</p>
            <p class="mt-3 flex items-center gap-3">
                <Needle :status="cell.status" size="l" /> {{ capital(STATUSES[cell.status]) }}
            </p>
            <p class="mt-3">
                <RouterLink
                    class="quiet-link text-brass"
                    :to="{ name: 'scorecard', query: query({ unit: place.unit, period: place.month }) }"
                    >Its scorecard of that month</RouterLink
                >
            </p>
        </template>
        <StateNote v-else-if="isPending" loading />
        <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
        <template v-else-if="data">
            <p class="text-[14px] text-ink-soft">{{ data.name }}, {{ monthAndYear(place.month) }}</p>
            <div class="mt-3 flex items-center gap-3">
                <Needle
                    :status="data.headline.status"
                    :called="data.headline.call !== null"
                    :stretched="data.headline.stretched"
                    size="l"
                />
                <p
                    v-if="data.headline.actual"
                    class="font-serif text-[24px] font-semibold"
                    :title="data.headline.actual.exact"
                >
                    {{ figure(data.headline.actual, data.measure) }}
                    <span class="font-sans text-[14px] font-normal text-ink-soft"
                        >{{ unitOf(data.measure)
                        }}<template v-if="data.headline.target">
                            · target {{ figure(data.headline.target, data.measure) }}</template
                        ></span
                    >
                </p>
            </div>
            <p class="mt-3 font-semibold">{{ unbroken(data.verdict.reason) }}</p>
            <p v-if="data.verdict.streak" class="text-ink-soft">{{ data.verdict.streak }}</p>
            <Wake class="mt-3" :points="data.wake" :status="data.monthStatus" :width="280" :height="54" />
            <ul
                v-if="data.texts.green || data.texts.amber || data.texts.red"
                class="mt-3 space-y-2 text-[14.5px] text-ink-soft"
            >
                <template v-for="colour in ['green', 'amber', 'red'] as const" :key="colour">
                    <li v-if="data.texts[colour]" class="flex gap-2.5">
                        <Needle :status="colour" size="s" class="mt-[2px]" /> {{ data.texts[colour] }}
                    </li>
                </template>
            </ul>
            <dl class="mt-3">
                <div v-for="note in notes" :key="note.period" class="border-t border-rule-soft py-2">
                    <dt class="inline text-ink-faint">{{ periodLabel(note.period) }}{{ ' ' }}</dt>
                    <dd class="inline">{{ note.text }}</dd>
                </div>
            </dl>
            <p class="flex flex-col items-start gap-2.5 border-t border-rule-soft pt-2 text-[14px]">
                <RouterLink
                    class="quiet-link text-brass"
                    :to="{
                        name: 'course',
                        params: { code: place.kpi },
                        query: query({ unit: place.unit, period: place.month }),
                    }"
                    >The page of this KPI</RouterLink
                >
                <RouterLink
                    v-if="data.counted"
                    class="quiet-link text-brass"
                    :to="{
                        name: 'course',
                        params: { code: place.kpi },
                        query: { ...query({ unit: place.unit, period: place.month }), look: 'records' },
                    }"
                    >The records behind it</RouterLink
                >
                <button type="button" class="quiet-link text-ink-soft" @click="$emit('cross', 'units-months')">
                    This KPI, unit by month
                </button>
                <button type="button" class="quiet-link text-ink-soft" @click="$emit('cross', 'kpis-months')">
                    This unit, KPI by month
                </button>
                <button type="button" class="quiet-link text-ink-soft" @click="$emit('cross', 'units-kpis')">
                    This month, unit by KPI
                </button>
            </p>
        </template>
    </aside>
</template>
