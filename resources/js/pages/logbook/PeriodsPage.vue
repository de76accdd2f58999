<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import Knot from '@/components/Knot.vue';
import Needle from '@/components/Needle.vue';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useNumbers } from '@/composables/useNumbers';
import { longMonth, moment, monthAndYear, shortPeriodWords } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useView } from '@/composables/useView';
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

/** A month before it is closed: what is missing, what has no reason, what looks wrong; and closing itself. */
const { unit, period, query } = useView();
const { figure } = useNumbers();
const queries = useQueryClient();
const renew = useFreshness();

const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['closing', unit.value.code, period.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/closing', {
                params: { path: { unit: unit.value.code }, query: { period: period.value } },
            }),
        ),
});
useTitle(computed(() => `${monthAndYear(period.value)}, closing · Kybernet`));

const top = computed(() => data.value?.units[0]);
const closed = computed(() => top.value?.closed === true);
const openUnits = computed(() => (data.value?.units ?? []).filter((each) => !each.closed && each.expected > 0).length);

const LISTS = [
    ['missing', 'Missing', 'Every reading is in.'],
    ['unexplained', 'Without a reason', 'Every amber and red has its reason.'],
    ['unusual', 'Is that right?', 'Nothing looks unusual.'],
] as const;

const { busy, problem, said, send } = useSending();
const reopening = ref(false);
useEscape(reopening, () => (reopening.value = false));
const reason = ref('');
watch([unit, period], () => {
    reopening.value = false;
    problem.value = null;
});

const act = (request: Promise<Schemas['ClosingPage']>) =>
    send(async () => {
        queries.setQueryData(['closing', unit.value.code, period.value], await request);
        reopening.value = false;
        reason.value = '';
        await renew('closing');
    });

const params = computed(() => ({ path: { unit: unit.value.code }, query: { period: period.value } }));
const close = () => act(read(api.PUT('/api/units/{unit}/closing', { params: params.value })));
const reopen = () =>
    act(read(api.POST('/api/units/{unit}/reopening', { params: params.value, body: { reason: reason.value } })));

const sentence = computed(() => {
    const page = data.value;
    if (page === undefined) {
        return '';
    }
    const said = { missing: 'missing', unexplained: 'without a reason', unusual: 'to look at' } as const;
    const parts = LISTS.flatMap(([list]) => (page[list].length > 0 ? [`${page[list].length} ${said[list]}`] : []));
    return parts.length === 0 ? 'nothing is missing, unexplained or unusual' : parts.join(', ');
});
const byOwner = (items: readonly Schemas['ClosingItem'][]): [string, Schemas['ClosingItem'][]][] => {
    const groups = new Map<string, Schemas['ClosingItem'][]>();
    items.forEach((item) =>
        groups.set(item.owner ?? 'nobody in particular', [
            ...(groups.get(item.owner ?? 'nobody in particular') ?? []),
            item,
        ]),
    );
    return [...groups];
};

/** 3 late jobs would make June 93.1 instead of 93.8. */
function lateWords(late: Schemas['LateLine']): string {
    const which =
        late.records > 0
            ? `${late.records} late ${late.noun}`
            : late.records < 0
              ? `${-late.records} ${late.noun} that are gone`
              : `Changed ${late.noun}`;
    const figures = [late.would, late.stands].map((shown) => (shown === null ? 'nothing' : figure(shown)));
    return `${which} would make ${shortPeriodWords(late.period)} ${figures[0]} instead of ${figures[1]}.`;
}
</script>

<template>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">
                {{ monthAndYear(period) }}, {{ closed ? 'closed' : 'before it is closed' }}
            </h1>
            <p class="mt-[5px] text-[17px]">
                <template v-if="closed && top">
                    <Knot /> Closed for {{ unit.name
                    }}<template v-if="top.closedAt"> on {{ moment(top.closedAt) }}</template
                    ><template v-if="top.closedBy"> by {{ top.closedBy }}</template
                    >.
                </template>
                <template v-else-if="data">For {{ unit.name }}: {{ sentence }}.</template>
                <template v-else>&nbsp;</template>
            </p>
        </div>
        <div v-if="data?.mayClose" class="ml-auto flex items-center gap-3">
            <button v-if="closed && !reopening" type="button" class="button button-quiet" @click="reopening = true">
                Reopen {{ longMonth(period) }}
            </button>
            <button
                v-else-if="!closed"
                type="button"
                class="button"
                :disabled="busy || !data.over"
                :title="data.over ? undefined : 'The month is not over yet.'"
                @click="close"
            >
                Close {{ longMonth(period) }}{{ openUnits > 1 ? ` for ${openUnits} units` : '' }}
            </button>
        </div>
    </div>
    <form
        v-if="reopening"
        class="flex flex-wrap items-end gap-3 border-b border-rule bg-sheet px-3 py-3"
        @submit.prevent="reopen"
    >
        <label class="min-w-[280px] grow">
            <span class="block text-[13.5px] text-ink-soft"
                >Why is it reopened? The reason is kept in the trail of changes; the units above are reopened with
                it.</span
            >
            <input
                v-model="reason"
                class="field w-full"
                maxlength="1000"
                autocomplete="off"
                :aria-invalid="said !== ''"
            />
        </label>
        <button type="submit" class="button" :disabled="busy">Reopen</button>
        <button type="button" class="button button-quiet" @click="reopening = false">Leave it closed</button>
    </form>
    <p v-if="said" class="error pt-2 text-[14.5px]" role="alert">{{ said }}</p>

    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <div
        v-else-if="data"
        class="grid grid-cols-[minmax(0,1fr)] gap-x-[34px] gap-y-6 pt-4 xl:grid-cols-[minmax(0,1fr)_360px]"
    >
        <div class="space-y-6">
            <section v-if="data.late.length > 0" aria-labelledby="late">
                <h2 id="late" class="text-[19px]">
                    Came in after the month was closed
                    <span class="ml-1 font-sans text-[14px] font-normal text-ink-soft">{{ data.late.length }}</span>
                </h2>
                <p class="mt-1 text-[14.5px] text-ink-soft">
                    The figures stay as they were closed; reopening takes these in.
                </p>
                <ul class="mt-1">
                    <li
                        v-for="each in data.late"
                        :key="`${each.id}/${each.period}`"
                        class="border-t border-rule-soft py-[6px]"
                    >
                        <RouterLink
                            class="font-semibold hover:text-brass"
                            :to="{
                                name: 'course',
                                params: { code: each.code },
                                query: { ...query({ unit: each.unitCode }), look: 'records' },
                            }"
                            >{{ each.name }}</RouterLink
                        >
                        <span class="ml-1.5 text-[13.5px] text-ink-faint">{{ each.unit }}</span>
                        <span class="block text-[14.5px]">{{ lateWords(each) }}</span>
                    </li>
                </ul>
            </section>
            <section v-for="[list, title, none] in LISTS" :key="list">
                <h2 class="text-[19px]">
                    {{ title }}
                    <span class="ml-1 font-sans text-[14px] font-normal text-ink-soft">{{
                        data[list].length || ''
                    }}</span>
                </h2>
                <p v-if="data[list].length === 0" class="mt-1 text-ink-soft">{{ none }}</p>
                <template v-else>
                    <div v-for="[owner, items] in byOwner(data[list])" :key="owner">
                        <p class="mt-2 text-[13.5px] text-ink-soft">
                            {{ list === 'missing' ? 'ask' : 'with' }} {{ owner }}
                        </p>
                        <ul>
                            <li
                                v-for="item in items"
                                :key="`${item.id}/${item.period}`"
                                class="flex items-baseline gap-3 border-t border-rule-soft py-[6px] max-md:flex-wrap max-md:gap-y-0"
                            >
                                <Needle :status="item.status" size="s" class="self-center" />
                                <RouterLink
                                    class="font-semibold hover:text-brass"
                                    :to="{ name: 'logbook', query: query({ unit: item.unit }) }"
                                    >{{ item.name }}</RouterLink
                                >
                                <span class="text-[13.5px] text-ink-faint"
                                    >{{ item.unitName
                                    }}<template v-if="item.period !== period"
                                        >, {{ shortPeriodWords(item.period) }}</template
                                    ></span
                                >
                                <span v-if="item.actual" class="ml-auto font-semibold whitespace-nowrap">{{
                                    figure(item.actual, item.measure)
                                }}</span>
                                <span
                                    class="text-[14px] text-ink-soft"
                                    :class="item.actual ? 'truncate md:w-[260px]' : 'ml-auto'"
                                    :title="item.words"
                                    >{{ item.words }}</span
                                >
                            </li>
                        </ul>
                    </div>
                </template>
            </section>
        </div>
        <aside class="xl:border-l xl:border-rule xl:pl-[26px]">
            <h2 class="text-[19px]">How far each unit is</h2>
            <table class="mt-2 w-full text-[14.5px]">
                <thead>
                    <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                        <th class="text-left">unit</th>
                        <th class="text-right">in</th>
                        <th class="text-right">handed in</th>
                        <th class="w-8"><span class="sr-only">closed</span></th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="each in data.units"
                        :key="each.code"
                        class="[&>td]:border-t [&>td]:border-rule-soft [&>td]:py-[5px]"
                    >
                        <td
                            class="max-w-[180px] truncate"
                            :class="{
                                'pl-4': each.depth === 1,
                                'pl-8': each.depth > 1,
                                'font-semibold': each.depth === 0,
                            }"
                        >
                            <RouterLink class="hover:text-brass" :to="{ query: query({ unit: each.code }) }">{{
                                each.name
                            }}</RouterLink>
                        </td>
                        <td class="text-right" :class="{ 'text-red-text': each.reported < each.expected }">
                            {{ each.expected === 0 ? '' : `${each.reported} of ${each.expected}` }}
                        </td>
                        <td class="text-right text-ink-soft">{{ each.expected === 0 ? '' : each.submitted }}</td>
                        <td class="text-center"><Knot v-if="each.closed" label="closed" /></td>
                    </tr>
                </tbody>
            </table>
            <p v-if="!closed" class="mt-3 text-[13.5px] text-ink-soft">
                <template v-if="data.units.length > 1"
                    >{{ unit.name }} closes with the
                    {{ data.units.length === 2 ? 'unit' : `${data.units.length - 1} units` }}
                    below it.
                </template>
                What is missing stays missing: no figure, target or note of the month can change until it is reopened
                with a reason.
            </p>
        </aside>
    </div>
</template>
