<script setup lang="ts">
import { api, read, type Schemas } from '@/api/client';
import Knot from '@/components/Knot.vue';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { counted } from '@/composables/useNumbers';
import { dayAndMonth, longMonth, monthAndYear, shortMonthAndYear, step } from '@/composables/usePeriods';
import { useSending } from '@/composables/useSending';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import { useQuery, useQueryClient } from '@tanstack/vue-query';
import { useTitle } from '@vueuse/core';
import { isWorkedOut } from '@/words';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';
import LogbookRow from './LogbookRow.vue';
import LogbookTabs from '@/components/LogbookTabs.vue';
import { useEntries, type SheetRow } from './useEntries';

const { unit, period, query } = useView();
const { user } = useSession();
const queries = useQueryClient();
const renew = useFreshness();

const { data, error, isPending, refetch } = useQuery({
    queryKey: computed(() => ['logbook', unit.value.code, period.value]),
    queryFn: () =>
        read(
            api.GET('/api/units/{unit}/logbook', {
                params: { path: { unit: unit.value.code }, query: { period: period.value } },
            }),
        ),
});

const savedAt = ref('');
const sheet = useEntries(
    computed(() => user.value?.name ?? ''),
    data,
    (row) => {
        // Whoever comes back to this month, or to a unit above, sees what was entered.
        queries.setQueriesData<Schemas['LogbookPage']>({ queryKey: ['logbook'] }, (page) =>
            page === undefined
                ? page
                : {
                      ...page,
                      rows: page.rows.map((each) => (each.id === row.id && each.period === row.period ? row : each)),
                  },
        );
        savedAt.value = new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
        submission.value = null;
        void renew('logbook');
    },
);

const onlyOpen = ref(false);
/** Rows that were open when the filter was set stay until it is set again: nothing vanishes under the hand. */
const shownKeys = ref<Set<string> | null>(null);

function toggleOpen(): void {
    onlyOpen.value = !onlyOpen.value;
    shownKeys.value = onlyOpen.value ? new Set(sheet.lines.value.filter(isOpen).map(({ key }) => key)) : null;
}

const isTyped = ({ row }: SheetRow): boolean => !isWorkedOut(row.lock);
const isOpen = (line: SheetRow): boolean => isTyped(line) && line.figure.saved === '';
const wantsNote = ({ row, note, figure }: SheetRow): boolean =>
    figure.saved !== '' && row.verdict.wantsNote && note.saved.text === '';

const lines = computed(() =>
    sheet.lines.value.filter(({ key }) => shownKeys.value === null || shownKeys.value.has(key)),
);
const mine = computed(() => sheet.lines.value.filter(isTyped));
const left = computed(() => mine.value.filter(isOpen).length);
const unexplained = computed(() => sheet.lines.value.filter(wantsNote).length);
const total = computed(() => mine.value.length);
const ready = computed(() => mine.value.filter(({ row }) => row.state === 'entered' && row.lock === '').length);

const groups = computed(() => {
    const found: { unit: string; lines: SheetRow[] }[] = [];
    for (const line of lines.value) {
        if (found.at(-1)?.unit === line.row.unit) {
            found.at(-1)?.lines.push(line);
        } else {
            found.push({ unit: line.row.unit, lines: [line] });
        }
    }
    return found;
});

const submission = ref<{ text: string; bad: string } | null>(null);
const { busy: submitting, send: handIn, said: refused } = useSending();
watch([period, unit], () => (submission.value = null));

async function submit(): Promise<void> {
    await handIn(async () => {
        // What is typed last is saved by leaving its cell for the button.
        await sheet.settled();
        const {
            submitted,
            open,
            unexplained: first,
        } = await read(
            api.POST('/api/units/{unit}/submission', {
                params: { path: { unit: unit.value.code }, query: { period: period.value } },
            }),
        );
        submission.value =
            first.length > 0
                ? { text: 'Nothing is handed in yet.', bad: `Say why first: ${first.join(', ')}.` }
                : {
                      text: `${submitted} ${submitted === 1 ? 'figure is' : 'figures are'} handed in.`,
                      bad: open > 0 ? `${open} ${open === 1 ? 'is' : 'are'} still open.` : '',
                  };
        await refetch();
    });
    if (refused.value !== '') {
        submission.value = { text: '', bad: refused.value };
    }
}

const state = computed(() => {
    if (sheet.waiting.value > 0) {
        return `No connection: ${counted(sheet.waiting.value)} kept here, sent when it is back`;
    }
    if (sheet.saving.value) {
        return 'Saving …';
    }
    return savedAt.value === '' ? 'Saved as you go' : `Saved ${savedAt.value}`;
});

const focused = ref<string | null>(null);
const table = useTemplateRef<HTMLElement>('table');
const domId = (key: string): string => key.replace('/', '-');

/** Enter goes to the next open cell, the arrows to the neighbour. */
function go(from: string, where: 'open' | 'next' | 'previous'): void {
    const all = lines.value.filter((line) => isTyped(line) && line.row.lock === '');
    const index = all.findIndex(({ key }) => key === from);
    const later = [...all.slice(index + 1), ...all.slice(0, index)];
    const line =
        where === 'next'
            ? all[index + 1]
            : where === 'previous'
              ? all[index - 1]
              : later.find(({ key, figure }) => figure.value === '' && key !== from);
    const cell = line === undefined ? null : table.value?.querySelector<HTMLElement>(`#figure-${domId(line.key)}`);
    const input = cell?.querySelector<HTMLElement>('[role=radio][tabindex="0"]') ?? cell;
    input?.focus();
    if (input instanceof HTMLInputElement) {
        input.select();
    }
}

useTitle(computed(() => `Logbook, ${monthAndYear(period.value)} · Kybernet`));

onBeforeRouteLeave(() => {
    const stuck = sheet.unsaved.value > 0 && !sheet.saving.value && sheet.waiting.value === 0;
    return !stuck || window.confirm('Some figures are not saved yet. They are kept in this browser. Leave the sheet?');
});
</script>

<template>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">{{ longMonth(period) }}, for {{ unit.name }}</h1>
            <p class="mt-[5px] text-[17px]" role="status">
                <template v-if="submission">
                    {{ submission.text }}
                    <b v-if="submission.bad" class="font-[650] text-red-text">{{ submission.bad }}</b>
                </template>
                <template v-else-if="data?.closed">
                    {{ longMonth(period) }} is closed <Knot />: its figures and notes can be read, not changed.
                </template>
                <template v-else-if="total > 0">
                    {{ total - left }} of {{ total }} figure{{ total === 1 ? ' is' : 's are' }} in;
                    <b v-if="unexplained > 0" class="font-[650] text-red-text"
                        >{{ counted(unexplained) }} {{ unexplained === 1 ? 'needs' : 'need' }} a reason</b
                    >
                    <template v-else>none needs a reason</template>.
                    <template v-if="data?.due"> Due on {{ dayAndMonth(data.due) }}.</template>
                </template>
                <template v-else>&nbsp;</template>
            </p>
        </div>
        <div v-if="total > 0 && !data?.closed" class="ml-auto flex items-end gap-6">
            <div class="text-right text-[13.5px] text-ink-soft">
                {{ left === 0 ? 'all in' : `${left} left` }}
                <svg
                    class="mt-1.5 block h-[5px] w-[200px]"
                    viewBox="0 0 100 5"
                    preserveAspectRatio="none"
                    role="img"
                    :aria-label="`${total - left} of ${total} ${total === 1 ? 'figure is' : 'figures are'} in`"
                >
                    <rect width="100" height="5" class="fill-fill" />
                    <rect :width="((total - left) / total) * 100" height="5" class="fill-brass" />
                </svg>
            </div>
            <button
                type="button"
                class="button"
                :disabled="ready === 0 || submitting || sheet.unsaved.value > 0"
                @click="submit"
            >
                {{ ready === 0 && left === 0 ? 'Handed in' : `Submit ${longMonth(period)}` }}
            </button>
        </div>
    </div>

    <LogbookTabs here="month">
        <template #right>
            <span v-if="total > 0"
                >Show:
                <button type="button" class="quiet-link" :aria-pressed="onlyOpen" @click="toggleOpen">
                    {{ onlyOpen ? 'open ones' : 'all mine' }}
                </button></span
            >
            <span
                class="text-[12.5px]"
                :class="sheet.waiting.value > 0 ? 'font-semibold text-amber-text' : 'text-ink-faint'"
                role="status"
                >{{ state }}</span
            >
        </template>
    </LogbookTabs>

    <StateNote v-if="isPending" loading />
    <StateNote v-else-if="error && !data" :error="error" @retry="refetch" />
    <StateNote v-else-if="data && !data.open" :title="`${monthAndYear(period)} has not begun yet`">
        Figures can be entered from its first day on. Choose an earlier month in the year ribbon.
    </StateNote>
    <StateNote v-else-if="sheet.lines.value.length === 0" title="Nothing here is yours to enter">
        The KPIs of {{ unit.name }} are entered by others. You can read them on its
        <RouterLink class="quiet-link" :to="{ name: 'scorecard', query: query() }">scorecard</RouterLink>.
    </StateNote>
    <template v-else>
        <table ref="table" class="w-full table-fixed border-collapse max-md:block">
            <colgroup>
                <col class="md:w-[262px]" />
                <col class="hidden w-[92px] md:table-column" />
                <col class="hidden w-[92px] md:table-column" />
                <col class="hidden w-[104px] md:table-column" />
                <col class="w-[138px]" />
                <col class="w-[46px]" />
                <col class="hidden md:table-column" />
            </colgroup>
            <thead class="max-md:sr-only">
                <tr class="text-right text-[12.5px] text-ink-faint [&>th]:pt-[3px] [&>th]:pb-1 [&>th]:font-medium">
                    <th><span class="sr-only">KPI</span></th>
                    <th class="hidden md:table-cell">{{ longMonth(step(period, -1)) }}</th>
                    <th class="hidden md:table-cell">{{ shortMonthAndYear(step(period, -12)) }}</th>
                    <th class="hidden md:table-cell">target</th>
                    <th>{{ longMonth(period) }}</th>
                    <th><span class="sr-only">Status</span></th>
                    <th class="hidden pl-[10px] text-left md:table-cell">note</th>
                </tr>
            </thead>
            <tbody v-for="group in groups" :key="group.unit" class="max-md:block">
                <tr v-if="groups.length > 1" class="max-md:block">
                    <th scope="rowgroup" colspan="7" class="h-[42px] max-md:block border-t border-rule pt-3 text-left">
                        <h2 class="text-[17px]">{{ group.unit }}</h2>
                    </th>
                </tr>
                <LogbookRow
                    v-for="line in group.lines"
                    :key="line.key"
                    :line="line"
                    :opened="focused === line.key"
                    @focus="focused = line.key"
                    @type="(text) => sheet.type(line.key, text)"
                    @type-note="(change) => sheet.typeNote(line.key, change)"
                    @type-part="(part, text) => sheet.typePart(line.key, part, text)"
                    @save="(what) => sheet.save(line.key, what)"
                    @settle="(what, own) => sheet.settle(line.key, what, own)"
                    @put-back="sheet.putBack(line.key)"
                    @over="(text) => sheet.putOver(line.key, text)"
                    @go="(where) => go(line.key, where)"
                />
            </tbody>
        </table>
        <p v-if="lines.length === 0" class="border-t border-rule py-6 text-ink-soft">
            Nothing is open here: every figure of {{ longMonth(period) }} is in.
        </p>
        <p v-else class="border-t border-rule-soft pt-2 text-[13px] text-ink-faint max-md:hidden">
            Enter: next open figure · Arrows: up and down · Esc: put back · Ctrl Enter: save the note and go on
        </p>
    </template>
</template>
