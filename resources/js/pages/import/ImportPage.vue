<script setup lang="ts">
import { ApiError, api, ofFile, read, type Schemas } from '@/api/client';
import StateNote from '@/components/StateNote.vue';
import { useFreshness } from '@/composables/useFreshness';
import { useLatest } from '@/composables/useLatest';
import { periodWords } from '@/composables/usePeriods';
import { useSession } from '@/composables/useSession';
import { useView } from '@/composables/useView';
import LogbookTabs from '@/components/LogbookTabs.vue';
import { useIntervalFn, useTitle } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import FileDrop from '@/components/FileDrop.vue';

/** A file of figures: how its columns are understood, what it would change row by row, then all of it or nothing. */
type Page = Schemas['ImportPage'];
type Role = Page['columns'][number]['role'];
type Outcome = Page['cells'][number]['outcome'];

const ROLES: Record<Role, string> = {
    '': 'left out',
    kpi: 'KPI',
    unit: 'unit',
    period: 'period',
    layer: 'layer',
    actual: 'actual',
    target: 'target',
    low: 'low target',
    high: 'high target',
    note: 'note',
    column: 'figures of this period',
};
const OUTCOMES = { new: 'new', changed: 'changed', same: 'the same', refused: 'refused' } as const;

const { unit, query } = useView();
const { user } = useSession();
const renew = useFreshness();
const route = useRoute();
const router = useRouter();
useTitle('Import · Kybernet');

const page = ref<Page | null>(null);
const roles = ref<Role[]>([]);
const busy = ref(false);
const problem = ref('');
const shown = ref<Outcome | ''>('');
const at = ref(1);

const id = computed(() => (typeof route.query['file'] === 'string' ? Number(route.query['file']) : 0));
const working = computed(() => ['reading', 'applying', 'undoing'].includes(page.value?.state ?? ''));

function take(next: Page): void {
    const before = page.value;
    page.value = next;
    // What the reader has corrected stays until it is sent.
    if (
        before?.id !== next.id ||
        next.state !== 'mapping' ||
        before.sheet !== next.sheet ||
        before.head !== next.head
    ) {
        roles.value = next.columns.map(({ role }) => role);
    }
    if (before !== null && before.state !== next.state && (next.state === 'applied' || next.state === 'undone')) {
        void renew();
    }
}

const ask = useLatest(take, (failure) => {
    problem.value =
        failure instanceof ApiError ? (Object.values(failure.fields)[0] ?? failure.detail) : String(failure);
});
async function run(request: () => Promise<Page>): Promise<void> {
    busy.value = true;
    problem.value = '';
    if (await ask(request)) {
        busy.value = false;
    }
}

const load = (): Promise<void> =>
    run(() =>
        read(
            api.GET('/api/imports/{import}', {
                params: {
                    path: { import: id.value },
                    query: { ...(shown.value === '' ? {} : { outcome: shown.value }), page: at.value },
                },
            }),
        ),
    );
watch(
    id,
    (now) => {
        if (now === 0) {
            page.value = null;
        } else if (now !== page.value?.id) {
            void load();
        }
    },
    { immediate: true },
);
watch([shown, at], () => id.value > 0 && load());
useIntervalFn(() => {
    if (working.value && !busy.value) {
        void load();
    }
}, 700);

async function send(file: File): Promise<void> {
    await run(() =>
        read(api.POST('/api/units/{unit}/imports', { params: { path: { unit: unit.value.code } }, ...ofFile(file) })),
    );
    if (page.value !== null && problem.value === '') {
        shown.value = '';
        at.value = 1;
        await router.replace({ query: { ...query(), file: String(page.value.id) } });
    }
}

const params = computed(() => ({ path: { import: page.value?.id ?? 0 } }));
const preview = () =>
    run(() => read(api.PUT('/api/imports/{import}/mapping', { params: params.value, body: { roles: roles.value } })));
const place = (sheet: string, line: number | null) =>
    run(() => read(api.PUT('/api/imports/{import}/head', { params: params.value, body: { sheet, line } })));
const apply = () => run(() => read(api.POST('/api/imports/{import}/application', { params: params.value })));
const undo = () => run(() => read(api.DELETE('/api/imports/{import}/application', { params: params.value })));
const again = (): void => void router.replace({ query: query() });

const counts = computed(() => page.value?.counts ?? { new: 0, changed: 0, same: 0, refused: 0 });
const total = computed(() => counts.value.new + counts.value.changed);
const sentence = computed(() => {
    const { state = '', rowsRead = 0, file = '' } = page.value ?? {};
    switch (state) {
        case 'mapping':
            return `${file}: are its columns understood?`;
        case 'reading':
            return `Reading ${file}: ${rowsRead.toLocaleString('en-GB')} rows so far. You can leave; it goes on.`;
        case 'ready':
            return `${file}: ${total.value} ${total.value === 1 ? 'cell' : 'cells'} would change; nothing is written yet.`;
        case 'applying':
            return `Writing ${file} … You can leave; it goes on.`;
        case 'undoing':
            return `Putting back what stood there before ${file} …`;
        case 'applied':
            return `${file} is applied: ${total.value} ${total.value === 1 ? 'cell' : 'cells'} changed.`;
        case 'undone':
            return `${file} is undone: what stood there before is back.`;
        case 'failed':
            return `${file} could not be read.`;
        default:
            return `For ${unit.value.name} and all below it. Nothing is written before you say so.`;
    }
});
</script>

<template>
    <div class="flex flex-wrap items-end gap-4 border-b border-rule pb-3">
        <div>
            <h1 class="text-[28px] leading-[1.15]">Figures from a file</h1>
            <p class="mt-[5px] text-[17px]" role="status">
                {{ sentence }}
                <b v-if="counts.refused > 0 && page?.state === 'ready'" class="font-[650] text-red-text"
                    >{{ counts.refused }} refused.</b
                >
            </p>
        </div>
        <div v-if="page" class="ml-auto flex items-center gap-3">
            <button type="button" class="quiet-link text-[14px] text-ink-soft" :disabled="working" @click="again">
                Another file
            </button>
            <button
                v-if="page.state === 'mapping' || page.state === 'failed'"
                type="button"
                class="button"
                :disabled="busy || page.columns.length === 0"
                @click="preview"
            >
                Show what changes
            </button>
            <button
                v-if="page.state === 'ready'"
                type="button"
                class="button"
                :disabled="busy || total === 0"
                @click="apply"
            >
                Apply {{ total }}
            </button>
            <button
                v-if="page.state === 'applied'"
                type="button"
                class="button button-quiet"
                :disabled="busy"
                @click="undo"
            >
                Undo all of it
            </button>
        </div>
    </div>
    <LogbookTabs here="import" />
    <p v-if="problem || page?.problem" class="error mb-3 text-[14.5px]" role="alert">{{ problem || page?.problem }}</p>

    <StateNote v-if="user && !user.logs" title="Entering is not yours">Your account reads figures.</StateNote>
    <FileDrop
        v-else-if="page === null"
        :busy="busy"
        accept=".csv,.txt,.tsv,.xlsx,.ods"
        hint="CSV, XLSX or ODS; months across, or a row a reading with the columns KPI, unit, period, actual, target and note. Up to 100,000 rows."
        @file="send"
    />
    <template v-else-if="page.state === 'mapping'">
        <p class="mb-3 text-ink-soft">
            Each column says what it holds. Correct what is wrong; columns that are left out are not read.
        </p>
        <div
            v-if="page.sheets.length > 1 || page.lines.length > 1"
            class="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2 text-[14px]"
        >
            <label v-if="page.sheets.length > 1" class="flex items-center gap-2">
                Sheet
                <select
                    class="field"
                    :value="page.sheet"
                    :disabled="busy"
                    @change="place(($event.target as HTMLSelectElement).value, null)"
                >
                    <option v-for="sheet in page.sheets" :key="sheet" :value="sheet">{{ sheet }}</option>
                </select>
            </label>
            <label class="flex items-center gap-2">
                Columns are named in line
                <select
                    class="field"
                    :value="page.head"
                    :disabled="busy"
                    @change="place(page.sheet, Number(($event.target as HTMLSelectElement).value))"
                >
                    <option v-for="line in page.lines" :key="line" :value="line">{{ line }}</option>
                </select>
            </label>
        </div>
        <div class="overflow-x-auto">
            <table class="min-w-max border-collapse text-left text-[14px]">
                <thead>
                    <tr>
                        <th
                            v-for="(column, index) in page.columns"
                            :key="index"
                            class="max-w-[180px] border-b border-rule px-2 pb-2 align-bottom font-semibold"
                        >
                            <span class="block truncate">{{ column.head || `column ${index + 1}` }}</span>
                            <select
                                v-model="roles[index]"
                                class="field mt-1 w-full min-w-[104px] text-[13.5px] font-normal"
                                :aria-label="`What ${column.head || `column ${index + 1}`} holds`"
                            >
                                <template v-for="(name, role) in ROLES" :key="role">
                                    <option v-if="role !== 'column' || column.isPeriod" :value="role">
                                        {{ name }}
                                    </option>
                                </template>
                            </select>
                        </th>
                    </tr>
                </thead>
                <tbody>
                    <tr v-for="line in page.columns[0]?.sample.length ?? 0" :key="line">
                        <td
                            v-for="(column, index) in page.columns"
                            :key="index"
                            class="max-w-[180px] truncate border-b border-rule-soft px-2 py-1"
                            :class="{ 'text-ink-faint': roles[index] === '' }"
                        >
                            {{ column.sample[line - 1] }}
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
    </template>
    <StateNote v-else-if="working" loading />
    <template v-else-if="page.state !== 'failed'">
        <div class="flex flex-wrap items-center gap-x-5 gap-y-1 pb-2 text-[14px]">
            <button type="button" class="tab" :aria-pressed="shown === ''" @click="((shown = ''), (at = 1))">
                all {{ total + counts.same + counts.refused }}
            </button>
            <button
                v-for="(name, outcome) in OUTCOMES"
                :key="outcome"
                type="button"
                class="tab"
                :class="{ 'text-red-text': outcome === 'refused' && counts.refused > 0 }"
                :aria-pressed="shown === outcome"
                @click="((shown = outcome), (at = 1))"
            >
                {{ counts[outcome] }} {{ name }}
            </button>
        </div>
        <StateNote v-if="page.cells.length === 0" title="Nothing of that kind">Choose another kind above.</StateNote>
        <table v-else class="w-full table-fixed border-collapse text-left text-[14px]">
            <colgroup>
                <col class="w-[56px]" />
                <col class="w-[26%]" />
                <col class="w-[116px]" />
                <col class="w-[58px]" />
                <col class="w-[96px]" />
                <col class="w-[100px]" />
                <col />
            </colgroup>
            <thead>
                <tr class="text-[12.5px] text-ink-faint [&>th]:pb-1 [&>th]:font-medium">
                    <th>line</th>
                    <th>KPI and unit</th>
                    <th>period</th>
                    <th>layer</th>
                    <th class="pr-4 text-right">there now</th>
                    <th class="pr-4 text-right">in the file</th>
                    <th>what happens</th>
                </tr>
            </thead>
            <tbody>
                <tr
                    v-for="cell in page.cells"
                    :key="`${cell.line}/${cell.place}`"
                    class="[&>td]:h-[30px] [&>td]:truncate [&>td]:border-t [&>td]:border-rule-soft [&>td]:pr-3"
                >
                    <td class="text-ink-faint">{{ cell.line }} {{ cell.place }}</td>
                    <td :title="cell.label">{{ cell.label }}</td>
                    <td class="text-ink-soft">{{ cell.period ? periodWords(cell.period) : '' }}</td>
                    <td class="text-ink-soft">{{ cell.layer }}</td>
                    <td class="!pr-4 text-right text-ink-soft">{{ cell.was }}</td>
                    <td class="!pr-4 text-right font-semibold" :class="{ 'text-red-text': cell.outcome === 'refused' }">
                        {{ cell.typed }}
                    </td>
                    <td
                        :title="cell.reason"
                        :class="
                            cell.outcome === 'refused'
                                ? 'text-red-text'
                                : cell.outcome === 'same'
                                  ? 'text-ink-faint'
                                  : ''
                        "
                    >
                        {{ cell.reason || OUTCOMES[cell.outcome] }}
                    </td>
                </tr>
            </tbody>
        </table>
        <div v-if="page.more || at > 1" class="flex items-center gap-4 pt-3 text-[14px]">
            <button type="button" class="quiet-link" :disabled="at === 1" @click="at--">Earlier</button>
            <span class="text-ink-soft">page {{ at }}</span>
            <button type="button" class="quiet-link" :disabled="!page.more" @click="at++">Later</button>
        </div>
    </template>
</template>
