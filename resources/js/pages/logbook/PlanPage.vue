<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useNumbers } from '@/composables/useNumbers';
import { shortMonth } from '@/composables/usePeriods';
import { useLatest } from '@/composables/useLatest';
import { useSending } from '@/composables/useSending';
import { useView } from '@/composables/useView';
import ChoiceRow from '@/components/ChoiceRow.vue';
import { useDebounceFn, useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';

/** Planning a year's targets: for one KPI or a whole department, seen beside last year before anything is saved. */
type Row = Schemas['TargetPlan']['rows'][number];
const METHODS = {
    even: 'evenly',
    shape: "by last year's shape",
    weights: 'by weights',
    growth: 'last year plus',
} as const;

const route = useRoute();
const { setApart } = useNumbers();
const { unit, period, query } = useView();
const renew = useFreshness();

const method = ref<keyof typeof METHODS>('even');
const figures = ref<Record<string, string>>({});
const weights = ref<string[]>(Array<string>(12).fill('1'));
const percent = ref('0');
const amount = ref('');
const only = computed(() => (typeof route.query['kpi'] === 'string' ? [route.query['kpi']] : []));
const chosen = ref<Set<number> | null>(null);

const plan = ref<Schemas['TargetPlan'] | null>(null);
const { busy, problem, message, said, send } = useSending();
const done = ref('');

const ask = useLatest<Schemas['TargetPlan']>(
    (planned) => {
        plan.value = planned;
        problem.value = null;
        chosen.value ??= new Set(
            planned.rows.filter((row) => row.problem === '' && only.value.length > 0).map(({ id }) => id),
        );
    },
    (failure) => {
        if (!(failure instanceof ApiError)) {
            throw failure;
        }
        problem.value = failure;
    },
);
const preview = () =>
    ask(() =>
        read(
            api.POST('/api/targets/plan', {
                body: {
                    unit: unit.value.code,
                    period: period.value,
                    method: method.value,
                    codes: only.value,
                    figures: figures.value,
                    weights: weights.value,
                    percent: percent.value,
                    amount: amount.value,
                    decimals: null,
                },
            }),
        ),
    );
const soon = useDebounceFn(preview, 200);
watch([unit, period, method], preview, { immediate: true });
watch([figures, weights, percent, amount], soon, { deep: true });
watch([unit, period], () => {
    figures.value = {};
    chosen.value = null;
    done.value = '';
});
useTitle(computed(() => `Targets${plan.value === null ? '' : ` ${plan.value.year}`} · Kybernet`));

const changedCells = (row: Row): number =>
    row.planned.filter((text, at) => text !== '' && text !== row.current[at] && row.kept[at] !== true).length;
const isChosen = (row: Row): boolean => chosen.value?.has(row.id) === true;
function toggle(row: Row): void {
    const next = new Set(chosen.value ?? []);
    if (!next.delete(row.id)) {
        next.add(row.id);
    }
    chosen.value = next;
}
const possible = computed(() => plan.value?.rows.filter((row) => row.problem === '') ?? []);
const all = computed(() => possible.value.length > 0 && possible.value.every(isChosen));
const toggleAll = (): void => void (chosen.value = all.value ? new Set() : new Set(possible.value.map(({ id }) => id)));
const total = computed(() => possible.value.filter(isChosen).reduce((sum, row) => sum + changedCells(row), 0));

async function apply(): Promise<void> {
    const cells = possible.value.filter(isChosen).flatMap((row) =>
        row.planned.flatMap((typed, at) => {
            const was = row.current[at] ?? '';
            return typed === '' || typed === was || row.kept[at] === true
                ? []
                : [{ measurement: row.id, period: row.periods[at] ?? '', typed, was }];
        }),
    );
    await send(async () => {
        const { outcomes } = await read(
            api.PUT('/api/units/{unit}/cells', {
                params: {
                    path: { unit: unit.value.code },
                    query: { period: period.value, layer: 'target', columns: 'month' },
                },
                body: { layer: 'target', cells },
            }),
        );
        const saved = outcomes.filter(({ outcome }) => outcome === 'saved').length;
        const bad = outcomes.filter(({ outcome }) => outcome === 'refused' || outcome === 'conflict');
        done.value = `${saved} ${saved === 1 ? 'target is' : 'targets are'} set.${bad.length > 0 ? ` ${bad.length} are not: ${bad[0]?.reason}` : ''}`;
        await renew();
        await preview();
    });
}

const label = (key: string): string =>
    key.startsWith('FY') ? key.slice(-2) : key.includes('W') ? key.slice(5) : shortMonth(key);
const months = computed(() => plan.value?.rows.find(({ periods }) => periods.length === 12)?.periods ?? []);
const severalUnits = computed(() => new Set(plan.value?.rows.map((row) => row.unit)).size > 1);
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">
                Targets{{ plan ? ` ${plan.year}` : '' }}{{ unit.name === '' ? '' : `, for ${unit.name}` }}
            </h1>
            <p class="mt-[5px] text-[17px]" role="status">
                <template v-if="done">{{ done }}</template>
                <template v-else-if="total > 0">{{ total }} targets would change; closed months keep theirs.</template>
                <template v-else>Choose KPIs below; nothing is saved before you say so.</template>
            </p>
        </div>
        <div class="ml-auto flex items-center gap-3">
            <RouterLink
                class="quiet-link text-[13.5px] text-ink-soft"
                :to="
                    only.length > 0
                        ? { name: 'kpi', params: { code: only[0] }, query: query() }
                        : { name: 'register', query: query() }
                "
                >{{ only.length > 0 ? 'Back to the KPI' : 'All KPIs' }}</RouterLink
            >
            <button type="button" class="button" :disabled="total === 0 || busy" @click="apply">
                Set {{ total || '' }} targets
            </button>
        </div>
    </div>
    <div class="flex flex-wrap items-center gap-x-5 gap-y-2 py-3">
        <span class="text-ink-soft">Spread the year's figure</span>
        <ChoiceRow v-model="method" label="How targets are made" :choices="METHODS" />
        <span v-if="method === 'growth'" class="flex flex-wrap items-center gap-2">
            <input
                v-model="percent"
                class="field w-[76px] text-right"
                inputmode="decimal"
                autocomplete="off"
                aria-label="Percent"
                :aria-invalid="!!message('/percent')"
            />
            % and
            <input
                v-model="amount"
                class="field w-[92px] text-right"
                inputmode="decimal"
                autocomplete="off"
                aria-label="Amount"
                placeholder="0"
                :aria-invalid="!!message('/amount')"
            />
            each period
        </span>
    </div>
    <div v-if="method === 'weights'" class="mb-3 flex flex-wrap items-end gap-2">
        <span class="pb-1.5 text-[13.5px] text-ink-soft">Weights</span>
        <label v-for="(_, index) in weights" :key="index" class="block">
            <span class="block text-center text-[12.5px] text-ink-faint">{{
                months[index] ? label(months[index]) : index + 1
            }}</span>
            <input
                v-model="weights[index]"
                class="field w-[56px] px-1 text-right"
                inputmode="decimal"
                autocomplete="off"
                :aria-invalid="!!message(`/weights/${index}`)"
            />
        </label>
    </div>
    <p v-if="said" class="error pb-2" role="alert">{{ said }}</p>
    <StateNote v-if="plan === null && !problem" loading />
    <StateNote v-else-if="plan && plan.rows.length === 0" title="Nothing to plan here"
        >{{ unit.name }} has no KPI that takes targets.</StateNote
    >
    <div v-else-if="plan" class="overflow-x-auto">
        <table class="w-full min-w-[1010px] border-collapse text-right text-[14px]">
            <thead>
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th class="w-7 text-left">
                        <input
                            type="checkbox"
                            class="size-4 accent-brass"
                            :checked="all"
                            aria-label="All KPIs"
                            @change="toggleAll"
                        />
                    </th>
                    <th class="w-[196px] text-left">KPI</th>
                    <th class="w-[104px]">{{ method === 'growth' ? 'last year' : "year's figure" }}</th>
                    <th class="w-[76px]" />
                    <th v-for="month in months" :key="month">{{ label(month) }}</th>
                    <th class="w-[84px]">together</th>
                </tr>
            </thead>
            <tbody v-for="row in plan.rows" :key="row.id" class="border-t border-rule-soft">
                <tr class="[&>td]:pt-[7px]">
                    <td class="text-left align-top" rowspan="2">
                        <input
                            type="checkbox"
                            class="mt-0.5 size-4 accent-brass"
                            :checked="isChosen(row)"
                            :disabled="row.problem !== ''"
                            :aria-label="row.name"
                            @change="toggle(row)"
                        />
                    </td>
                    <td class="max-w-[196px] truncate pr-3 text-left align-top" rowspan="2">
                        <b class="font-semibold">{{ row.name }}</b><br /><span class="text-[12.5px] text-ink-faint"
                            >{{ row.measure }}{{ severalUnits ? ` · ${row.unit}` : '' }}</span
                        >
                    </td>
                    <td rowspan="2" class="align-top">
                        <input
                            v-if="method !== 'growth'"
                            class="field w-[96px] text-right"
                            inputmode="decimal"
                            autocomplete="off"
                            :aria-label="`Year's figure of ${row.name}`"
                            :placeholder="setApart(row.lastYear)"
                            :value="figures[row.id] ?? ''"
                            :aria-invalid="!!message(`/figures/${row.id}`)"
                            :disabled="row.problem !== '' && row.yearFigure !== ''"
                            @input="figures = { ...figures, [row.id]: ($event.target as HTMLInputElement).value }"
                        />
                        <span v-else class="text-ink-soft">{{ setApart(row.lastYear) }}</span>
                    </td>
                    <td class="pr-2 pl-3 text-left text-[12.5px] text-ink-faint">planned</td>
                    <td v-if="row.problem" :colspan="13" class="text-left text-ink-soft">{{ row.problem }}</td>
                    <template v-else-if="row.periods.length === 12">
                        <td
                            v-for="(text, at) in row.planned"
                            :key="at"
                            class="font-semibold whitespace-nowrap"
                            :class="row.kept[at] ? 'text-ink-faint' : text !== row.current[at] ? 'text-brass' : ''"
                            :title="
                                row.kept[at]
                                    ? 'closed: it stays'
                                    : row.remainderAt === row.periods[at]
                                      ? `holds what rounding left over: ${row.remainder}`
                                      : row.current[at]
                                        ? `now ${row.current[at]}`
                                        : undefined
                            "
                        >
                            {{ setApart(text)
                            }}<sup v-if="row.remainderAt === row.periods[at]" class="text-amber-text">{{
                                row.remainder.startsWith('-') ? '−' : '+'
                            }}</sup>
                        </td>
                    </template>
                    <td v-else :colspan="12" class="text-left font-semibold">
                        {{
                            row.periods.map((key, at) => `${label(key)} ${setApart(row.planned[at] ?? '')}`).join(' · ')
                        }}
                    </td>
                    <td v-if="!row.problem" class="font-semibold">{{ setApart(row.gathered) }}</td>
                </tr>
                <tr class="text-ink-faint [&>td]:pb-[7px]">
                    <td class="pr-2 pl-3 text-left text-[12.5px]">last year</td>
                    <template v-if="row.periods.length === 12"
                        ><td v-for="(text, at) in row.prior" :key="at" class="whitespace-nowrap">
                            {{ setApart(text) }}
                        </td></template
                    >
                    <td v-else :colspan="12" class="text-left">
                        {{ row.prior.filter(Boolean).map(setApart).join(' · ') }}
                    </td>
                    <td>{{ setApart(row.lastYear) }}</td>
                </tr>
                <tr v-if="row.remainder">
                    <td />
                    <td colspan="16" class="pb-2 text-left text-[12.5px] text-amber-text">
                        {{ label(row.remainderAt ?? '') }} takes what rounding left over: {{ setApart(row.remainder) }}.
                    </td>
                </tr>
            </tbody>
        </table>
    </div>
</template>
