<script setup lang="ts">
import { api, read } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { capital, counted } from '@/composables/useNumbers';
import { monthAndYear } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import UnitsStep from './UnitsStep.vue';

/** What comes first in an organisation of one's own. What is done follows from what is there. */
useTitle('Your first month · Kybernet');
const router = useRouter();
const { session, root, load } = useSession();
const { query } = useView();
const { data, error, isPending, refetch } = useQuery({
    queryKey: ['first-month'],
    queryFn: () => read(api.GET('/api/first-month')),
    staleTime: 0,
});

const MONTHS = Array.from({ length: 12 }, (_, index) =>
    new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' }).format(new Date(Date.UTC(2026, index, 1))),
);
const start = computed(() => MONTHS[(session.value?.yearStartMonth ?? 1) - 1] ?? '');
const money = computed(() => new Intl.DisplayNames('en', { type: 'currency' }).of(data.value?.currency ?? 'GBP') ?? '');
const number = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;

type Step = 'organisation' | 'units' | 'people' | 'kpis' | 'history' | 'month';
const steps = computed(() => {
    const found = data.value;
    return found === undefined
        ? []
        : ([
              {
                  key: 'organisation',
                  title: 'The organisation',
                  done: true,
                  words: `year from ${start.value}, ${money.value}`,
              },
              {
                  key: 'units',
                  title: 'Units',
                  done: found.units > 0,
                  words:
                      found.units > 0
                          ? number(found.units, 'unit', 'units')
                          : 'departments, sites, teams: who is reported on',
              },
              {
                  key: 'people',
                  title: 'People',
                  done: found.people > 1,
                  words:
                      found.people > 1
                          ? `${found.people} with you among them`
                          : 'who enters figures, answers for units, reads',
              },
              {
                  key: 'kpis',
                  title: 'KPIs',
                  done: found.kpis > 0,
                  words: found.kpis > 0 ? number(found.kpis, 'KPI', 'KPIs') : 'define them, or bring a list',
              },
              {
                  key: 'history',
                  title: 'History',
                  done: found.history > 0,
                  words:
                      found.history > 0
                          ? number(found.history, 'figure', 'figures')
                          : 'paste or import what you have, so that trends mean something',
              },
              {
                  key: 'month',
                  title: 'The first month',
                  done: found.closed !== null,
                  words:
                      found.closed !== null
                          ? `${monthAndYear(found.closed)} is closed`
                          : 'enter, close, look at it together',
              },
          ] as { key: Step; title: string; done: boolean; words: string }[]);
});
const done = computed(() => steps.value.filter((step) => step.done).length);
const picked = ref<Step | null>(null);
const open = computed<Step>(() => picked.value ?? steps.value.find((step) => !step.done)?.key ?? 'month');

/** The step stays open, though it counts as done now. */
function again(): void {
    picked.value = 'units';
    void refetch();
}

async function putAway(): Promise<void> {
    await read(api.DELETE('/api/first-month'));
    await load();
    await router.push({ name: 'scorecard', query: query() });
}
</script>

<template>
    <h1 class="text-[28px] leading-[1.15]">Your first month</h1>
    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <template v-else-if="data">
        <p class="mt-[5px] border-b border-rule pb-4 text-[17px]">
            {{ root?.name }}, year from {{ start }}.
            <b class="font-[650]"
                >{{ capital(counted(done)) }} of {{ counted(steps.length) }} steps
                {{ done === 1 ? 'is' : 'are' }} done</b
            >; none needs the others to be complete.
        </p>
        <div class="grid gap-x-[34px] gap-y-6 pt-3 lg:grid-cols-[264px_minmax(0,1fr)]">
            <div>
                <ol>
                    <li v-for="(step, index) in steps" :key="step.key" class="border-b border-rule-soft">
                        <button
                            type="button"
                            class="-mx-3 grid w-[calc(100%+24px)] grid-cols-[30px_minmax(0,1fr)] gap-2 rounded-[3px] px-3 py-[11px] text-left hover:bg-sheet"
                            :class="{ 'bg-brass-tint': step.key === open }"
                            :aria-current="step.key === open ? 'step' : undefined"
                            @click="picked = step.key"
                        >
                            <span
                                class="mt-[2px] grid size-[22px] place-content-center rounded-full border text-[13px]"
                                :class="step.done ? 'border-green bg-green text-paper' : 'border-edge text-ink-soft'"
                                aria-hidden="true"
                                >{{ step.done ? '✓' : index + 1 }}</span
                            >
                            <span>
                                <b class="block text-[15.5px] font-semibold">{{ step.title }}</b>
                                <span class="block text-[13.5px] leading-[1.3] text-ink-soft"
                                    >{{ step.words
                                    }}<span class="sr-only">{{ step.done ? ', done' : ', open' }}</span></span
                                >
                            </span>
                        </button>
                    </li>
                </ol>
                <p class="pt-3 text-[14px]">
                    <button type="button" class="quiet-link min-h-6 text-ink-soft" @click="putAway">
                        Put this away
                    </button>
                </p>
            </div>
            <section :aria-label="steps.find(({ key }) => key === open)?.title">
                <UnitsStep v-if="open === 'units'" @made="again" />
                <template v-else-if="open === 'organisation'">
                    <h2 class="text-[20px]">{{ root?.name }}</h2>
                    <dl class="mt-2 grid max-w-[520px] grid-cols-[150px_1fr] gap-y-1.5">
                        <dt class="text-ink-soft">Year starts in</dt>
                        <dd>{{ start }}</dd>
                        <dt class="text-ink-soft">Currency</dt>
                        <dd>{{ money }} ({{ data.currency }})</dd>
                        <dt class="text-ink-soft">Time zone</dt>
                        <dd>{{ data.timeZone.replaceAll('_', ' ') }}</dd>
                        <dt class="text-ink-soft">Code</dt>
                        <dd>{{ root?.code }}</dd>
                    </dl>
                </template>
                <template v-else-if="open === 'people'">
                    <h2 class="text-[20px]">People</h2>
                    <p class="mt-1 max-w-[46em] text-ink-soft">
                        Invite who enters figures, who answers for a department and who reads. Each gets a link to
                        choose a password with; it can be handed over in any way, and works once.
                    </p>
                    <p class="mt-4">
                        <RouterLink class="button" :to="{ name: 'people', query: query() }">Invite somebody</RouterLink>
                    </p>
                </template>
                <template v-else-if="open === 'kpis'">
                    <h2 class="text-[20px]">KPIs</h2>
                    <p class="mt-1 max-w-[46em] text-ink-soft">
                        Begin with the dozen that management asks for. Each is defined in four parts: what and why, how
                        it is counted, what good looks like, and where. Common measures come as drafts, with formulas
                        and usual limits; a list in a sheet comes in as a whole, with a preview.
                    </p>
                    <p class="mt-4 flex flex-wrap gap-3">
                        <RouterLink class="button" :to="{ name: 'starters', query: query() }"
                            >Choose common measures</RouterLink
                        >
                        <RouterLink class="button button-quiet" :to="{ name: 'define', query: query() }"
                            >Define your own</RouterLink
                        >
                        <RouterLink class="button button-quiet" :to="{ name: 'import-definitions', query: query() }"
                            >Bring a list</RouterLink
                        >
                    </p>
                </template>
                <template v-else-if="open === 'history'">
                    <h2 class="text-[20px]">History</h2>
                    <p class="mt-1 max-w-[46em] text-ink-soft">
                        Two years let trends, limits and last year speak. A sheet with months across or down is read as
                        it is; in the year grid one can paste block by block. What is loaded is this year’s comparison
                        and is never kept twice.
                    </p>
                    <p class="mt-4 flex flex-wrap gap-3">
                        <RouterLink class="button" :to="{ name: 'import', query: query() }">From a file</RouterLink>
                        <RouterLink class="button button-quiet" :to="{ name: 'year-grid', query: query() }"
                            >Paste into the year grid</RouterLink
                        >
                    </p>
                </template>
                <template v-else>
                    <h2 class="text-[20px]">The first month</h2>
                    <p class="mt-1 max-w-[46em] text-ink-soft">
                        Enter the month, give reasons where it is bad, look at what is missing and close it. Then
                        present the scorecard, or print it.
                    </p>
                    <p class="mt-4 flex flex-wrap gap-3">
                        <RouterLink class="button" :to="{ name: 'logbook', query: query() }">Enter it</RouterLink>
                        <RouterLink class="button button-quiet" :to="{ name: 'periods', query: query() }"
                            >Check and close</RouterLink
                        >
                        <RouterLink class="button button-quiet" :to="{ name: 'scorecard', query: query() }"
                            >Look at it</RouterLink
                        >
                    </p>
                </template>
            </section>
        </div>
    </template>
</template>
