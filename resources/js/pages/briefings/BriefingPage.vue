<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useAddress } from '@/composables/useAddress';
import { useEscape } from '@/composables/useEscape';
import { capital } from '@/composables/useNumbers';
import { dayAndMonth, longMonth, monthAndYear, shortPeriodWords } from '@/composables/usePeriods';
import { usePresentation } from '@/composables/usePresentation';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useWaiting } from '@/composables/useWaiting';
import { COLOURS, SPAN_PHRASES } from '@/words';
import { keepPreviousData, useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ChangedSince from './ChangedSince.vue';
import PageBands from './PageBands.vue';
import { providePage } from './usePage';

const WritePage = defineAsyncComponent(() => import('./WritePage.vue'));
const PageMore = defineAsyncComponent(() => import('./PageMore.vue'));

/** A briefing as its readers see it: an issue as it was published, or its layout with the figures of today. */
const props = defineProps<{ code: string }>();
const route = useRoute();
const router = useRouter();
const { unit, period, span, week, here } = useView();
const { units } = useSession();
const { presenting, start } = usePresentation();
const writing = computed(() => route.query['write'] === '1');
const number = useAddress('issue', '');
const colour = useAddress('colour', '', ['', ...Object.keys(COLOURS)]);
const part = useAddress('part', '');
const follow = useAddress('follow', '');

const { data, error, isPending, isPlaceholderData, refetch } = useQuery({
    enabled: () => !writing.value,
    queryKey: computed(() => ['briefing', props.code, period.value, span.value, unit.value.code, number.value, week.value]),
    queryFn: () =>
        read(
            api.GET('/api/briefings/{briefing}', {
                params: {
                    path: { briefing: props.code },
                    query: { period: period.value, span: span.value, unit: unit.value.code, week: week.value, ...(number.value === '' ? {} : { issue: Number(number.value) }) },
                },
            }),
        ),
    placeholderData: keepPreviousData,
}); // prettier-ignore
const fading = useWaiting(isPlaceholderData);
const page = computed(() => (data.value?.code === props.code ? data.value : undefined));
const answers = computed(() => new Map((page.value?.answers ?? []).map((answer) => [answer.id, answer])));
useTitle(computed(() => `${page.value?.name ?? 'Briefing'} · Kybernet`));

const home = computed(() => page.value?.unit ?? unit.value.code);
const narrowed = computed(() => page.value !== undefined && unit.value.code !== page.value.unit);
const goHome = (): void => void router.push({ query: { ...here({ unit: home.value }), follow: undefined } });
providePage({
    isPublic: false,
    home,
    unit: computed(() => (page.value?.shows === 'issue' ? page.value.unit : unit.value.code)),
    period: computed(() => page.value?.period ?? period.value),
    colour,
    part,
    follow,
    chooseUnit: (code) => {
        if (!units.value.has(code)) {
            return;
        }
        if (follow.value === code) {
            goHome();
        } else {
            void router.push({ query: { ...here({ unit: code }), follow: code } });
        }
    },
});

/** What has been chosen stands in the head, and goes with Esc, the latest first. */
const chosen = computed(() => [
    ...(narrowed.value ? [{ name: `${unit.value.name} only`, away: goHome }] : []),
    ...(colour.value === '' ? [] : [{ name: COLOURS[colour.value as keyof typeof COLOURS], away: () => void (colour.value = '') }]),
    ...(part.value === '' ? [] : [{ name: part.value, away: () => void (part.value = '') }]),
]); // prettier-ignore
useEscape(
    () => chosen.value.length > 0 && !presenting.value,
    () => chosen.value.at(-1)?.away(),
);
const colours = computed(() => {
    const found = new Set((page.value?.answers ?? []).flatMap((answer) => [...(answer.rows ?? []), ...(answer.exceptions ?? []), ...(answer.regions ?? [])].map(({ status }) => status))); // prettier-ignore
    return (Object.keys(COLOURS) as (keyof typeof COLOURS)[]).filter((each) => found.has(each));
});
const more = ref(false);
const title = computed(() => {
    const name = page.value?.name ?? '';
    return page.value === undefined ? '' : `${name}, ${page.value.period.slice(0, 4) === period.value.slice(0, 4) ? longMonth(page.value.period) : monthAndYear(page.value.period)}`; // prettier-ignore
});
const publishedWords = (issue: Schemas['IssueLine']): string => `Issue ${issue.number}, published ${dayAndMonth(issue.at.slice(0, 10))}`; // prettier-ignore
const stands = computed(() => {
    const { shows, issue } = page.value ?? { shows: 'none', issue: null };
    if (week.value !== '' && issue !== null) {
        return `${capital(shortPeriodWords(week.value))} of what has weeks, ${longMonth(period.value)} of the rest`;
    }
    if (issue === null) {
        return '';
    }
    return shows === 'issue'
        ? publishedWords(issue)
        : narrowed.value || issue.period === period.value
          ? `Figures of today, laid out as in issue ${issue.number}`
          : `Not published for ${longMonth(period.value)} yet: figures of today, laid out as in issue ${issue.number} of ${longMonth(issue.period)}`; // prettier-ignore
});
function turnDark(): void {
    start();
}
const print = (): void => window.print();
</script>

<template>
    <WritePage v-if="writing" :code="code" />
    <template v-else>
        <StateNote v-if="isPending" loading />
        <StateNote v-else-if="error && page === undefined" :error="error" @retry="refetch" />
        <div v-else-if="page" :class="{ waiting: fading }">
            <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1.5 border-b-[1.5px] border-ink pb-2">
                <h1 class="text-[28px] leading-[1.15]">{{ title }}</h1>
                <span class="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-[14px] text-ink-soft md:ml-auto">
                    <button
                        v-for="each in chosen"
                        :key="each.name"
                        type="button"
                        class="rounded-[3px] border border-brass bg-brass-tint px-2 text-[13.5px] text-ink print:border-0"
                        :aria-label="`${each.name}: take away`"
                        @click="each.away()"
                    >
                        {{ each.name }} <span class="ml-1 text-brass print:hidden" aria-hidden="true">×</span>
                    </button>
                    <span>{{ stands }}</span>
                    <span v-if="!presenting" class="flex flex-wrap items-baseline gap-x-4 print:hidden">
                        <select
                            v-if="colours.length > 1"
                            :value="colour"
                            class="field h-[26px]! min-h-0! py-0! text-[13.5px]"
                            aria-label="Which colours stand out"
                            @change="colour = ($event.target as HTMLSelectElement).value"
                        >
                            <option value="">all colours</option>
                            <option v-for="each in colours" :key="each" :value="each">{{ COLOURS[each] }}</option>
                        </select>
                        <button type="button" class="quiet-link max-md:hidden" @click="turnDark">Present</button>
                        <button type="button" class="quiet-link max-md:hidden" @click="print">Print</button>
                        <button type="button" class="quiet-link" :aria-expanded="more" @click="more = !more">
                            More
                        </button>
                        <RouterLink
                            v-if="page.mine"
                            class="quiet-link"
                            :to="{ query: { ...here({ unit: page.unit }), write: '1', issue: undefined } }"
                            >Change</RouterLink
                        >
                    </span>
                </span>
            </div>
            <PageMore v-if="more && !presenting" :page="page" @close="more = false" @turned="refetch()" />
            <ChangedSince v-if="page.changed.length > 0" :changed="page.changed" :issue="page.issue?.number ?? 0" />
            <p v-if="page.withheld > 0" class="border-b border-rule py-1.5 text-[14px] text-ink-soft">
                {{ page.withheld === 1 ? 'One piece of this page is' : `${page.withheld} pieces of this page are` }} not
                for you: figures of units that you do not see.
            </p>
            <StateNote v-if="page.shows === 'none'" :title="`${page.name} is not published yet`">
                <template v-if="page.mine">Its readers see it when it is published. </template>
                <template v-else>You will see it here when it is.</template>
                <RouterLink v-if="page.mine" class="quiet-link" :to="{ query: { ...here({}), write: '1' } }"
                    >Write it</RouterLink
                >
            </StateNote>
            <div v-else data-bands><PageBands :bands="page.bands" :answers="answers" /></div>
            <p class="hidden text-[12px] text-ink-faint print:block">
                {{ page.unitName }}, {{ SPAN_PHRASES[span] }} to {{ monthAndYear(page.period) }}. {{ stands }}.
            </p>
        </div>
    </template>
</template>
