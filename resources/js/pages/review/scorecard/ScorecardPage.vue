<script setup lang="ts">
import { STATUSES, spanTitle } from '@/words';
import { api, read, type Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import ExportMenu from '@/components/ExportMenu.vue';
import StateNote from '@/components/StateNote.vue';
import { capital, counted } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import { usePresentation } from '@/composables/usePresentation';
import { useSession } from '@/composables/useSession';
import { useAddress } from '@/composables/useAddress';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useLocalStorage, useTitle } from '@vueuse/core';
import { computed, defineAsyncComponent, reactive, ref, watch } from 'vue';
import CourseLegend from './CourseLegend.vue';
import { arrange, type Filter, type Order } from './order';
import ScorecardTable from './ScorecardTable.vue';
import ScorecardTabs from './ScorecardTabs.vue';
import SummarySentence from './SummarySentence.vue';
import UnitLines from './UnitLines.vue';

const RollUpNote = defineAsyncComponent(() => import('./RollUpNote.vue'));

/** More headline figures than this are more than a management page can hold. */
const HEADLINES = 12;

const { unit, period, span, week, query } = useView();
const { user } = useSession();
const { presenting, start } = usePresentation();
const hideTargets = useLocalStorage('kybernet:hide-targets', false);
const hidePrior = useLocalStorage('kybernet:hide-prior', false);
const showStep = useLocalStorage('kybernet:show-step', false);
const opened = ref<number | null>(null);
const explaining = ref(false);
useEscape(explaining, () => (explaining.value = false));
useEscape(
    () => opened.value !== null,
    () => (opened.value = null),
);
const fewer = ref(false);

const GROUPS = { '': '', theme: 'theme', level: 'level', none: 'nothing' } as const;
type Group = keyof typeof GROUPS;
const group = useAddress<Group>('group', '', Object.keys(GROUPS) as Group[]);
const setGroup = (to: string): void => void (group.value = to as Group);
const order = useAddress<Order>('order', 'register', ['register', 'seriousness', 'movement', 'variance']);
const filter: Filter = reactive({
    text: useAddress('text', ''),
    status: useAddress<Filter['status']>('status', '', ['red', 'amber', 'green', 'no-data', 'not-judged']),
    level: useAddress('level', ''),
    theme: useAddress('theme', ''),
    owner: useAddress('owner', ''),
});
const isFiltered = computed(() => Object.values(filter).some((each) => each !== ''));
const filtering = ref(isFiltered.value);
const clear = (): void => void Object.assign(filter, { text: '', status: '', level: '', theme: '', owner: '' });

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['scorecard', unit.value.code, period.value, span.value, group.value, week.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/scorecard', {
                params: {
                    path: { unit: unit.value.code },
                    query: { period: period.value, span: span.value, group: group.value, week: week.value },
                },
            }),
        ),
    placeholderData: keepPreviousData,
});
const fading = useWaiting(isPlaceholderData);

const title = computed(
    () =>
        `${unit.value.name}, ${span.value === 'yearToDate' ? 'year to date' : spanTitle(span.value, monthAndYear(period.value))}`,
);
useTitle(computed(() => `${title.value} · Kybernet`));

const isEmpty = computed(
    () => data.value !== undefined && data.value.groups.length === 0 && data.value.units.length === 0,
);
const rows = computed(() => (data.value?.groups ?? []).flatMap(({ rows: own }) => own));
const found = (of: (row: Schemas['ScorecardRow']) => string | null): string[] =>
    [...new Set(rows.value.map(of).filter((each): each is string => each !== null && each !== ''))].sort();
const themes = computed(() => found(({ theme }) => theme));
const owners = computed(() => found(({ owner }) => owner));
const levels = computed(() => found(({ level }) => level));

/** The headline figures of an organisation: those of its own unit. */
const headline = computed(() => (data.value?.isWhole && group.value === '' ? data.value.groups[0] : undefined));
const tooMany = computed(() => (headline.value?.rows.length ?? 0) > HEADLINES);
const groups = computed(() => {
    const shown = (data.value?.groups ?? []).map((each) =>
        fewer.value && each === headline.value ? { ...each, rows: important(each.rows) } : each,
    );
    return arrange(shown, order.value, filter);
});
/** The heaviest, in their own order. */
function important(all: readonly Schemas['ScorecardRow'][]): Schemas['ScorecardRow'][] {
    const kept = new Set([...all].sort((one, other) => Number(other.weight) - Number(one.weight)).slice(0, HEADLINES));
    return all.filter((row) => kept.has(row));
}
const shownCount = computed(() => groups.value.reduce((sum, each) => sum + each.rows.length, 0));

const ORDERS: Record<Order, string> = {
    register: 'register',
    seriousness: 'seriousness',
    movement: 'movement',
    variance: 'distance to target',
};

watch(
    () => unit.value.code,
    () => {
        opened.value = null;
        explaining.value = fewer.value = false;
        clear();
    },
);
const print = (): void => {
    window.print();
};
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
    <div v-else-if="data" :class="{ waiting: fading }">
        <SummarySentence :page="data" class="mt-[5px] mb-2" />
        <p v-if="data.overdue > 0" class="-mt-1 mb-2 text-[15px]">
            <RouterLink class="quiet-link font-semibold text-red-text" :to="{ name: 'exceptions', query: query() }">{{
                data.overdue === 1 ? 'One action is overdue' : `${capital(counted(data.overdue))} actions are overdue`
            }}</RouterLink>
        </p>
        <ScorecardTabs v-if="!presenting" here="scorecard">
            <label class="flex items-center gap-1.5"
                >Group
                <select
                    class="field py-0.5"
                    :value="group"
                    @change="setGroup(($event.target as HTMLSelectElement).value)"
                >
                    <option value="">{{ data.isWhole ? 'by department' : 'by theme' }}</option>
                    <option v-if="data.isWhole" value="theme">by theme</option>
                    <option value="level">by level</option>
                    <option value="none">not at all</option>
                </select>
            </label>
            <label class="flex items-center gap-1.5"
                >Order
                <select v-model="order" class="field py-0.5">
                    <option v-for="(words, each) in ORDERS" :key="each" :value="each">{{ words }}</option>
                </select>
            </label>
            <button v-if="order !== 'register'" type="button" class="quiet-link" @click="order = 'register'">
                Restore
            </button>
            <template #right>
                <button type="button" class="quiet-link" :aria-expanded="filtering" @click="filtering = !filtering">
                    {{ isFiltered ? `Filtered: ${shownCount} of ${rows.length}` : 'Filter' }}
                </button>
                <button type="button" class="quiet-link" :aria-expanded="explaining" @click="explaining = !explaining">
                    How it adds up
                </button>
                <button type="button" class="quiet-link max-md:hidden" @click="start">Present</button>
                <button type="button" class="quiet-link max-md:hidden" @click="print">Print</button>
                <ExportMenu
                    :path="`/api/units/${unit.code}/scorecard/file`"
                    :query="{ period, span, group }"
                    :formats="{
                        csv: 'CSV',
                        xlsx: 'XLSX',
                        ods: 'ODS',
                        ...(user?.seesAll ? { json: 'Assessment' } : {}),
                    }"
                />
            </template>
        </ScorecardTabs>
        <form
            v-if="filtering && !presenting"
            class="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2 text-[14px] print:hidden"
            @submit.prevent
        >
            <label>Name<input v-model="filter.text" type="search" class="field mt-0.5 block w-[170px]" /></label>
            <label
                >Status<select v-model="filter.status" class="field mt-0.5 block">
                    <option value="">any</option>
                    <option v-for="(words, status) in STATUSES" :key="status" :value="status">{{ words }}</option>
                </select></label
            >
            <label
                >Level<select v-model="filter.level" class="field mt-0.5 block">
                    <option value="">any</option>
                    <option v-for="each in levels" :key="each">{{ each }}</option>
                </select></label
            >
            <label
                >Theme<select v-model="filter.theme" class="field mt-0.5 block">
                    <option value="">any</option>
                    <option v-for="each in themes" :key="each">{{ each }}</option>
                </select></label
            >
            <label
                >Owner<select v-model="filter.owner" class="field mt-0.5 block">
                    <option value="">anybody</option>
                    <option v-for="each in owners" :key="each">{{ each }}</option>
                </select></label
            >
            <button v-if="isFiltered" type="button" class="quiet-link pb-1.5" @click="clear">Show all</button>
        </form>
        <RollUpNote v-if="explaining" :page="data" :unit="unit.name" class="mb-3" />
        <p v-if="tooMany && headline" class="mb-2 border-l-2 border-brass pl-3 text-[14.5px] text-ink-soft">
            {{ headline.rows.length }} headline figures: above about {{ HEADLINES }} a page is read by nobody.
            <button type="button" class="quiet-link text-brass" @click="fewer = !fewer">
                {{ fewer ? 'Show all of them' : `Keep the ${HEADLINES} most important` }}
            </button>
        </p>
        <template v-if="data.groups.length > 0">
            <CourseLegend
                v-model:hide-targets="hideTargets"
                v-model:hide-prior="hidePrior"
                v-model:show-step="showStep"
                :with-step="span === 'month'"
            />
            <p v-if="shownCount === 0" class="border-t border-rule py-6 text-ink-soft">
                No KPI fits. <button type="button" class="quiet-link" @click="clear">Show all</button>
            </p>
            <ScorecardTable
                v-else
                v-model:opened="opened"
                :units="data.isWhole && !isFiltered ? data.units : []"
                :all="rows"
                :groups="groups"
                :hide-targets="hideTargets"
                :hide-prior="hidePrior"
                :show-step="showStep && span === 'month'"
            />
        </template>
        <UnitLines v-if="!data.isWhole && data.units.length > 0" :units="data.units" :of="unit.name" />
    </div>
</template>
