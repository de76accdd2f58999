<script setup lang="ts">
import { ApiError, api, read, type Schemas } from '@/api/client';
import { useEscape } from '@/composables/useEscape';
import KpiLink from '@/components/KpiLink.vue';
import Needle from '@/components/Needle.vue';
import NoteList from '@/components/NoteList.vue';
import StateNote from '@/components/StateNote.vue';
import { useAddress, useSwitch } from '@/composables/useAddress';
import { capital, useNumbers } from '@/composables/useNumbers';
import { dayAndMonth, longMonth, shortMonthAndYear, shortPeriodWords } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { ACCUMULATIONS, MOVING } from '@/words';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, defineAsyncComponent, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ActionForm from './ActionForm.vue';
import ActionLine from './ActionLine.vue';
import CallForm from './CallForm.vue';
import { pointsOf, type Layers, type Mode } from './chart';
import { asPng, asSvg } from './download';
import KpiChart from './KpiChart.vue';
import PeerPlaces from './PeerPlaces.vue';
import RuleHistory from './RuleHistory.vue';
import WhatItSays from './WhatItSays.vue';
import YearTable from './YearTable.vue';
import { triedIn, triedQuery, triesAnything } from '@/composables/useTried';

/** What stands behind a counted figure comes when it is looked for. */
const CasesPanel = defineAsyncComponent(() => import('@/pages/review/behind/CasesPanel.vue'));
const PartsTable = defineAsyncComponent(() => import('@/components/PartsTable.vue'));
const RecordsPanel = defineAsyncComponent(() => import('@/pages/review/behind/RecordsPanel.vue'));
/** Few look for it. */
const WhatIf = defineAsyncComponent(() => import('./WhatIf.vue'));

/** One KPI in one unit, complete. */
const route = useRoute();
const router = useRouter();
const { unit, period, span, week, query } = useView();
const { user } = useSession();
const { figure, fixed, percent, signed, unitOf } = useNumbers();
const code = computed(() => String(route.params.code));

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    queryKey: computed(() => ['kpi-page', unit.value.code, code.value, period.value, span.value, week.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/kpis/{kpi}', {
                params: {
                    path: { unit: unit.value.code, kpi: code.value },
                    query: { period: period.value, span: span.value, week: week.value },
                },
            }),
        ),
    placeholderData: keepPreviousData,
    retry: false,
});
const fading = useWaiting(isPlaceholderData);
useTitle(computed(() => `${data.value?.name ?? code.value} · Kybernet`));

const LOOKS = { course: 'Course', cases: 'Cases', parts: 'In parts', records: 'The records' } as const;
type Look = keyof typeof LOOKS;
const look = useAddress<Look>('look', 'course', Object.keys(LOOKS) as Look[]);
/** What can be looked at: a counted figure has all of it, one whose parts are typed has those. */
const looks = computed<Look[]>(() =>
    data.value?.kind === 'records'
        ? ['course', 'cases', 'parts', 'records']
        : data.value?.hasParts
          ? ['course', 'parts']
          : ['course'],
);
const behind = computed(() => (looks.value.includes(look.value) ? look.value : 'course'));

const mode = useAddress<Mode>('course', 'months', ['months', 'gathered', 'quarters']);
const long = useSwitch('far');
/** A link that tries something opens what it tries. */
const trying = useSwitch('if');
const isTrying = computed(() => trying.value || triesAnything(triedIn(route.query)));
async function toggleTrial(): Promise<void> {
    const now = isTrying.value ? undefined : '1';
    await router.replace({ query: { ...route.query, ...triedQuery({}, ''), if: now } });
}
/** What is drawn, by name. */
const lines = useAddress('lines', 'zones.prior.trend.projection');
const layers = computed(
    () =>
        Object.fromEntries(
            LAYERS.map(({ name }) => [name, lines.value.split('.').includes(name)]),
        ) as unknown as Layers,
);
const toggle = (name: keyof Layers): void => {
    const wanted = LAYERS.filter((each) => layers.value[each.name] !== (each.name === name));
    lines.value = wanted.map((each) => each.name).join('.');
};
const LAYERS: { name: keyof Layers; words: string; only?: Mode[] }[] = [
    { name: 'zones', words: 'zones' },
    { name: 'prior', words: 'last year' },
    { name: 'average', words: 'mean of 3', only: ['months'] },
    { name: 'trend', words: 'trend', only: ['months'] },
    { name: 'control', words: 'control limits', only: ['months'] },
    { name: 'projection', words: 'to year end', only: ['months', 'gathered'] },
];
const offered = computed(() => LAYERS.filter(({ only }) => only === undefined || only.includes(mode.value)));

const MODES = computed<Partial<Record<Mode, string>>>(() => ({
    months: { week: 'Weeks', month: 'Months', quarter: 'Quarters', year: 'Years' }[data.value?.frequency ?? 'month'],
    ...(data.value?.frequency === 'year' || data.value?.kind === 'judged' ? {} : { gathered: 'Gathered' }),
    ...(data.value?.frequency === 'week' || data.value?.frequency === 'month' ? { quarters: 'Quarters' } : {}),
}));
watch(MODES, (now) => {
    if (!(mode.value in now)) {
        mode.value = 'months';
    }
});
const points = computed(() => (data.value === undefined ? [] : pointsOf(data.value, mode.value, long.value)));
/** The point that is looked at, as each way of drawing names it. */
const chosen = computed(() => {
    const page = data.value;
    if (page === undefined || mode.value === 'months') {
        return page?.latest ?? '';
    }
    return mode.value === 'gathered'
        ? period.value
        : (page.quarters.find((point) => point.period >= period.value)?.period ?? '');
});

const headlines = computed(() =>
    data.value === undefined
        ? []
        : [data.value.month, data.value.yearToDate, ...(data.value.chosen === null ? [] : [data.value.chosen])].map(
              (line) => ({
                  ...line,
                  title: {
                      month:
                          week.value !== '' && data.value.latest === week.value
                              ? capital(shortPeriodWords(week.value))
                              : longMonth(period.value),
                      yearToDate: 'year to date',
                      quarter: 'quarter to date',
                      rolling12: 'last 12 months',
                  }[line.span],
              }),
          ),
);
const beside = (line: Schemas['Headline']): string => {
    if (line.variance === null) {
        return '';
    }
    if (data.value?.polarity === 'band' && line.variance.effect === 'none') {
        return 'inside its band';
    }
    const to = data.value?.polarity === 'band' ? 'from its band' : 'to target';
    return line.variance.points || line.variance.percent === null
        ? `${signed(line.variance.difference)}${line.variance.points ? ' points' : ''} ${to}`
        : `${percent(line.variance.percent)} ${to}`;
};

const POLARITIES = {
    higher: 'Higher is better',
    lower: 'Lower is better',
    band: 'Best inside a band',
    none: 'Only tracked',
} as const;

const FIRST_NOTES = 4;
const log = computed(() => data.value?.notes ?? []);
const allNotes = ref(false);
const agreeing = ref(false);
const calling = ref(false);
useEscape(agreeing, () => (agreeing.value = false));
useEscape(calling, () => (calling.value = false));
watch(
    () => [code.value, unit.value.code],
    () => {
        agreeing.value = calling.value = allNotes.value = false;
    },
);

const chart = useTemplateRef('chart');
const file = computed(() => `${code.value}-${unit.value.code}-${period.value}`);
function download(kind: 'svg' | 'png'): void {
    const svg = chart.value?.svg;
    if (svg) {
        const title = `${data.value?.name ?? ''}, ${unit.value.name}`;
        if (kind === 'svg') {
            asSvg(svg, title, file.value);
        } else {
            void asPng(svg, title, file.value);
        }
    }
}

const unmeasured = computed(() => error.value instanceof ApiError && error.value.status === 404);
/** Too long to stand beside the figure. */
const isLongMeasure = computed(() => unitOf(data.value?.measure ?? '').length > 12);
</script>

<template>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="unmeasured" :title="`${code} is not measured in ${unit.name}`">
        Choose another unit in the path above, or see
        <RouterLink class="quiet-link" :to="{ name: 'kpi', params: { code }, query: query() }"
            >where it is measured</RouterLink
        >.
    </StateNote>
    <StateNote v-else-if="error && (!data || data.code !== code)" :error="error" @retry="refetch" />
    <article v-else-if="data" :class="{ waiting: fading }">
        <header class="flex flex-wrap items-start gap-x-10 gap-y-3 border-b border-rule pb-3">
            <div class="min-w-[260px] grow basis-[380px]">
                <h1 class="text-[28px] leading-[1.15]">{{ data.name }}</h1>
                <p class="mt-[5px] max-w-[44em] text-[15px] text-ink-soft">
                    {{ data.purpose }} {{ POLARITIES[data.polarity]
                    }}<template v-if="data.objective"
                        >; serves <i>{{ data.objective }}</i></template
                    >. <template v-if="data.owner">Owner: {{ data.owner }}.{{ ' ' }}</template>
                    <RouterLink class="quiet-link" :to="{ name: 'kpi', params: { code }, query: query() }"
                        >How it is defined</RouterLink
                    >
                </p>
            </div>
            <div v-for="line in headlines" :key="line.span" class="flex max-w-[230px] gap-[11px]">
                <Needle
                    :status="line.status"
                    :stretched="line.stretched"
                    :called="line.call !== null"
                    size="l"
                    class="mt-[3px]"
                />
                <p class="leading-tight">
                    <span
                        v-if="line.actual"
                        class="font-serif text-[26px] font-semibold whitespace-nowrap"
                        :title="line.actual.exact"
                        >{{ figure(line.actual, data.measure)
                        }}<span
                            class="font-sans text-[15px] font-normal text-ink-faint"
                            :class="isLongMeasure ? 'block text-[13.5px] whitespace-normal' : 'ml-1'"
                            >{{ unitOf(data.measure) }}</span
                        ></span
                    >
                    <span v-else class="block pt-1 text-[16px] text-ink-soft">{{
                        data.kind === 'judged' && line.status !== 'no-data' ? 'a person judged' : 'no reading'
                    }}</span>
                    <span class="block text-[13.5px] text-ink-soft">{{
                        [line.title, beside(line)].filter(Boolean).join(' · ')
                    }}</span>
                    <span v-if="line.asOf" class="block text-[12.5px] text-amber-text"
                        >as of {{ dayAndMonth(line.asOf) }}</span
                    >
                    <span
                        v-if="line.call !== null"
                        class="mt-0.5 flex items-center gap-1 text-[12.5px] text-ink-soft"
                        :title="line.call"
                        >called; computed <Needle :status="line.computed" size="s"
                    /></span>
                </p>
            </div>
        </header>

        <nav v-if="looks.length > 1" class="flex gap-x-6 pt-2 pb-1" aria-label="What is shown of it">
            <button
                v-for="each in looks"
                :key="each"
                type="button"
                class="tab"
                :aria-pressed="behind === each"
                @click="look = each"
            >
                {{ LOOKS[each] }}
            </button>
        </nav>
        <CasesPanel
            v-if="behind === 'cases'"
            class="pt-3"
            :measurement="data.id"
            :code="data.code"
            :may-define="user?.defines === true"
            @records="look = 'records'"
        />
        <PartsTable v-else-if="behind === 'parts'" class="pt-3" :measurement="data.id" :measure="data.measure" />
        <RecordsPanel v-else-if="behind === 'records'" class="pt-3" :measurement="data.id" />
        <template v-if="behind === 'course'">
            <div class="flex flex-wrap items-center gap-x-5 gap-y-1 py-[7px] text-[14.5px]">
                <div class="flex gap-5" role="group" aria-label="Periods">
                    <button
                        v-for="(words, each) in MODES"
                        :key="each"
                        type="button"
                        class="tab"
                        :aria-pressed="mode === each"
                        @click="mode = each as Mode"
                    >
                        {{ words }}
                    </button>
                </div>
                <button
                    v-if="mode === 'months'"
                    type="button"
                    class="quiet-link text-[14px] text-ink-soft"
                    @click="long = !long"
                >
                    {{ long ? 'this year' : 'three years' }}
                </button>
                <div class="flex flex-wrap gap-x-4 lg:ml-auto" role="group" aria-label="Shown on the chart">
                    <button
                        v-for="each in offered"
                        :key="each.name"
                        type="button"
                        class="tab"
                        :aria-pressed="layers[each.name]"
                        @click="toggle(each.name)"
                    >
                        {{ each.words }}
                    </button>
                </div>
            </div>
            <KpiChart
                v-if="data.kind !== 'judged'"
                ref="chart"
                :page="data"
                :points="points"
                :mode="mode"
                :layers="layers"
                :chosen="chosen"
            />
            <ol v-else class="flex flex-wrap gap-x-3 gap-y-2 border-y border-rule-soft py-5" aria-label="Colours given">
                <li
                    v-for="point in points.filter((each) => each.period <= data!.latest)"
                    :key="point.period"
                    class="w-[58px] text-center text-[12.5px] text-ink-soft"
                >
                    <Needle :status="point.status" :size="point.period === data.latest ? 'l' : 'm'" />
                    <span class="mt-1 block">{{ shortMonthAndYear(point.period) }}</span>
                </li>
            </ol>
            <p v-if="data.kind !== 'judged'" class="flex items-baseline gap-x-5 text-[13px] text-ink-soft">
                <button
                    v-if="data.polarity !== 'none' && data.rules.length > 0"
                    type="button"
                    class="quiet-link min-h-6 text-[14.5px] text-brass"
                    :aria-expanded="isTrying"
                    @click="toggleTrial"
                >
                    What if …
                </button>
                <span class="ml-auto"
                    >Keep the chart as <button type="button" class="quiet-link" @click="download('svg')">SVG</button> or
                    <button type="button" class="quiet-link" @click="download('png')">PNG</button></span
                >
            </p>
            <WhatIf v-if="isTrying && data.polarity !== 'none' && data.kind !== 'judged'" :page="data" class="mt-3" />

            <div class="mt-3 grid gap-x-9 gap-y-6 border-t border-rule pt-3 lg:grid-cols-[minmax(0,1fr)_330px]">
                <section aria-labelledby="says">
                    <h2 id="says" class="mb-1 text-[18px]">What it says</h2>
                    <WhatItSays :page="data" />
                    <p class="mt-1.5 max-w-[64em] text-[15px]">
                        {{ data.month.reason }}{{ ' ' }} <span class="text-ink-soft">{{ data.month.streak }}</span>
                        <span v-if="data.kind !== 'judged'" class="text-ink-soft">
                            Over a longer span:
                            {{ ACCUMULATIONS[data.accumulation as keyof typeof ACCUMULATIONS] }}.</span
                        >
                    </p>
                    <p class="mt-2 flex gap-4 text-[14px]">
                        <button
                            v-if="data.mine"
                            type="button"
                            class="quiet-link text-brass"
                            :aria-expanded="agreeing"
                            @click="agreeing = !agreeing"
                        >
                            Agree an action
                        </button>
                        <RouterLink
                            v-if="data.mine"
                            class="quiet-link text-brass"
                            :to="{ name: 'logbook', query: query() }"
                            >Write the note</RouterLink
                        >
                        <button
                            v-if="data.mayCall && data.month.actual"
                            type="button"
                            class="quiet-link text-brass"
                            :aria-expanded="calling"
                            @click="calling = !calling"
                        >
                            Call the status
                        </button>
                    </p>
                    <ActionForm
                        v-if="agreeing"
                        class="mt-2"
                        :measurement="data.id"
                        :period="data.latest"
                        @done="agreeing = false"
                    />
                    <CallForm v-if="calling" class="mt-2" :page="data" @done="calling = false" />
                    <div v-if="data.actions.length > 0" class="mt-3">
                        <h3 class="text-[15.5px]">What is being done</h3>
                        <ActionLine
                            v-for="action in data.actions"
                            :key="action.id"
                            :action="action"
                            class="border-t border-rule-soft py-2"
                        />
                    </div>
                    <NoteList v-if="log.length > 0" class="mt-3" :notes="allNotes ? log : log.slice(0, FIRST_NOTES)" />
                    <button
                        v-if="log.length > FIRST_NOTES"
                        type="button"
                        class="quiet-link mt-1 text-[13.5px] text-ink-soft"
                        @click="allNotes = !allNotes"
                    >
                        {{ allNotes ? 'Fewer notes' : `All ${log.length} notes` }}
                    </button>
                    <p v-if="log.length === 0" class="mt-3 text-[14px] text-ink-faint">
                        No notes in the last three years.
                    </p>
                </section>
                <div class="space-y-6">
                    <section v-if="data.drivers.length > 0" aria-labelledby="feeds">
                        <h2 id="feeds" class="mb-1 text-[18px]">What drives it</h2>
                        <ul>
                            <li
                                v-for="driver in data.drivers"
                                :key="driver.id"
                                class="flex min-h-[33px] items-center gap-2.5 border-t border-rule-soft"
                            >
                                <Needle :status="driver.status" size="s" />
                                <KpiLink
                                    class="min-w-0 grow truncate hover:text-brass"
                                    :code="driver.code"
                                    :unit="driver.unit"
                                    >{{ driver.name }}</KpiLink
                                >
                                <span
                                    class="shrink-0 text-[13px] text-ink-soft"
                                    title="Correlation over the last 24 periods"
                                    >{{
                                        driver.together !== null && driver.moving !== null
                                            ? `${MOVING[driver.moving]} ${fixed(driver.together, 2)}`
                                            : driver.actual
                                              ? figure(driver.actual, driver.measure)
                                              : 'no reading'
                                    }}</span
                                >
                            </li>
                        </ul>
                    </section>
                    <section
                        v-if="data.texts && (data.texts.green || data.texts.amber || data.texts.red)"
                        aria-labelledby="means"
                    >
                        <h2 id="means" class="mb-1 text-[18px]">What each colour means</h2>
                        <ul class="text-[14.5px]">
                            <template v-for="colour in ['green', 'amber', 'red'] as const" :key="colour">
                                <li v-if="data.texts[colour]" class="flex gap-2.5 border-t border-rule-soft py-[6px]">
                                    <Needle :status="colour" size="s" class="mt-[2px]" /> {{ data.texts[colour] }}
                                </li>
                            </template>
                        </ul>
                    </section>
                    <RuleHistory :rules="data.rules" />
                </div>
            </div>
            <YearTable :page="data" :chosen="period" class="mt-6 border-t border-rule pt-3" />
            <PeerPlaces
                v-if="data.places.length > 0"
                class="mt-6 border-t border-rule pt-3"
                :page="data"
                :unit="unit"
                :span="span"
            />
        </template>
        <p class="mt-6 border-t border-rule pt-2 text-[13.5px] text-ink-soft">
            Who changed what, and when:
            <RouterLink class="quiet-link" :to="{ name: 'changes', query: { ...query(), kpi: code } }"
                >the trail of this KPI</RouterLink
            >
        </p>
    </article>
</template>
