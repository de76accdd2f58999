<script setup lang="ts">
import type { Schemas } from '@/api/client';
import { PASTING, usePasting } from '@/components/grid/usePasting';
import { useSelection, type Place } from '@/components/grid/useSelection';
import Knot from '@/components/Knot.vue';
import StateNote from '@/components/StateNote.vue';
import { useNumbers } from '@/composables/useNumbers';
import { longMonth, periodWords, shortMonth } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import ChoiceRow from '@/components/ChoiceRow.vue';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';
import GridRow from './GridRow.vue';
import GridStatus from './GridStatus.vue';
import LogbookTabs from '@/components/LogbookTabs.vue';
import { useYearGrid, type Layer } from './useYearGrid';

type Row = Schemas['GridRow'];

/** How many rows Page up and Page down go. */
const PAGE = 15;
const ROW = 30;
const GROUP = 33;
const LAYERS = { actual: 'actual', target: 'target', prior: 'last year' } as const;

const { unit, period } = useView();
const { figure, setApart } = useNumbers();

const layer = ref<Layer>('actual');
const weekly = ref(false);
const onlyMine = ref(true);
const filter = ref('');
const grid = useYearGrid(layer, weekly);
const { data, edits, message, busy, offline } = grid;

const columns = computed(() => data.value?.columns ?? []);
const canType = computed(() => data.value?.rows.some(({ mine }) => mine) === true);

const shown = computed(() => {
    const wanted = filter.value.trim().toLowerCase();
    return (data.value?.rows ?? []).filter(
        (row) =>
            (!onlyMine.value || !canType.value || row.mine || row.kind === 'formula') &&
            `${row.name} ${row.code} ${row.unit} ${row.theme}`.toLowerCase().includes(wanted),
    );
});

const severalUnits = computed(() => new Set(shown.value.map((row) => row.unit)).size > 1);
/** Rows with a heading where the unit changes, or inside one unit the theme. */
const items = computed(() => {
    const list: ({ title: string } | { row: Row; at: number })[] = [];
    let title: string | null = null;
    shown.value.forEach((row, at) => {
        const own = severalUnits.value ? row.unit : row.theme;
        if (own !== title) {
            title = own;
            list.push({ title: own });
        }
        list.push({ row, at });
    });
    return list;
});
const itemOf = computed(
    () => new Map(items.value.flatMap((item, index) => ('row' in item ? [[item.at, index] as const] : []))),
);

const scroller = useTemplateRef<HTMLElement>('scroller');
const printing = ref(false);
useEventListener(window, 'beforeprint', () => (printing.value = true));
useEventListener(window, 'afterprint', () => (printing.value = false));
const virtual = useVirtualizer(
    computed(() => ({
        count: items.value.length,
        getScrollElement: () => scroller.value,
        estimateSize: (index: number) =>
            items.value[index] !== undefined && 'row' in items.value[index] ? ROW : GROUP,
        // Paper shows all of it.
        overscan: printing.value ? items.value.length : 6,
    })),
);
watch(items, () => virtual.value.measure());

const selection = useSelection(
    computed(() => shown.value.length),
    computed(() => columns.value.length),
);
const { active, area } = selection;
const isSelected = (row: number): boolean => row >= area.value.top && row <= area.value.bottom;
/** Begins at the chosen month, in the first row. */
function begin(): void {
    const column = columns.value.findIndex(({ month }) => month === period.value);
    selection.go(0, Math.max(0, column));
}
watch(() => [unit.value.code, layer.value, weekly.value], begin);
watch(columns, (_, before) => before.length === 0 && begin());

const key = (place: Place): string => `${shown.value[place.row]?.id ?? 0}/${place.column}`;
const text = (place: Place): string => edits.shown(key(place));
const isFilled = (place: Place): boolean => text(place) !== '';
const lock = (place: Place): string => shown.value[place.row]?.locks[place.column] ?? 'nothing here';
const current = computed(() => ({
    row: shown.value[active.row],
    draft: edits.drafts.get(key(active)),
    lock: lock(active),
}));
/** A colour that is typed asks why, here; one that has its note does not. */
const reason = computed(() => {
    const { row, draft } = current.value;
    const asks =
        row?.kind === 'judged' &&
        layer.value === 'actual' &&
        draft !== undefined &&
        draft.text !== '' &&
        row.marks[active.column] !== 'n';
    return asks ? (grid.reasons.get(key(active)) ?? '') : null;
});

async function reveal(): Promise<void> {
    const index = itemOf.value.get(active.row);
    if (index !== undefined) {
        virtual.value.scrollToIndex(active.row === 0 ? 0 : index, { align: 'auto' });
    }
    await nextTick();
    scroller.value
        ?.querySelector(`#cell-${active.row}-${active.column}`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}
watch(active, () => void reveal());

// --- typing -------------------------------------------------------------------------------------------------------

const editing = ref<string | null>(null);

async function edit(start: string): Promise<void> {
    if (current.value.lock !== '') {
        return;
    }
    editing.value = start;
    await nextTick();
    const editor = scroller.value?.querySelector('input');
    editor?.focus();
    if (start === text(active)) {
        editor?.select();
    }
}

function commit(): void {
    if (editing.value !== null) {
        change('typing', [[{ ...active }, editing.value.trim()]]);
        stop();
    }
}

function stop(): void {
    editing.value = null;
    scroller.value?.focus({ preventScroll: true });
}

/** Changes cells that can be typed in; what is locked stays as it is. */
function change(name: string, changes: [Place, string][]): void {
    grid.trialSoon(
        edits.apply(
            name,
            changes.map(([place, typed]) => [key(place), typed]),
        ),
    );
    message.value = null;
}
/** Several units measure the same KPI: the one meant is that of the row which is selected. */
function rowOf(name: string): number | null {
    const wanted = name.trim().toLowerCase();
    const found = shown.value.flatMap((row, index) =>
        [row.code, row.name, `${row.name}, ${row.unit}`, `${row.code} ${row.unit}`].some(
            (each) => each.toLowerCase() === wanted,
        )
            ? [index]
            : [],
    );
    const same = found.filter((index) => shown.value[index]?.unit === shown.value[active.row]?.unit);
    return found.length === 1 ? (found[0] ?? null) : same.length === 1 ? (same[0] ?? null) : null;
}
function columnOf(wanted: string): number | null {
    const found = columns.value.findIndex(({ period: each }) =>
        wanted.startsWith('-') ? each.endsWith(wanted) : each === wanted,
    );
    return found < 0 ? null : found;
}
const pasting = usePasting(selection, { text, lock, rowOf, columnOf, change }, () => editing.value !== null);

function fill(down: boolean): void {
    const { top, left } = area.value;
    const source = (place: Place): Place =>
        down ? { row: top, column: place.column } : { row: place.row, column: left };
    change(
        down ? 'filling down' : 'filling right',
        [...selection.places()].filter((place) => lock(place) === '').map((place) => [place, text(source(place))]),
    );
}

function step(redo: boolean): void {
    const done = redo ? edits.redo() : edits.undo();
    if (done === null) {
        return;
    }
    grid.trialSoon(done.cells.map((cell) => cell.key));
    message.value = {
        text: `${redo ? 'Done again' : 'Undone'}: ${done.name}, ${done.cells.length} ${done.cells.length === 1 ? 'cell' : 'cells'}.`,
        bad: '',
    };
    // What was saved already is put back in the database as well.
    if (!redo && done.saved) {
        void grid.save();
    }
}

function onKey(event: KeyboardEvent): void {
    const far = event.ctrlKey || event.metaKey;
    if (editing.value !== null) {
        if (event.key === 'Enter' || event.key === 'Tab') {
            commit();
            selection.onKey(event, 1, isFilled);
        } else if (event.key === 'Escape') {
            event.preventDefault();
            stop();
        } else if (event.target === scroller.value && event.key.length === 1 && !far) {
            // Fast hands type on before the field has the focus.
            event.preventDefault();
            editing.value += event.key;
        }
        return;
    }
    const letter = event.key.toLowerCase();
    const actions: Record<string, () => void> = {
        d: () => fill(true),
        r: () => fill(false),
        z: () => step(event.shiftKey),
        y: () => step(true),
        s: () => void grid.save(),
    };
    if (far && actions[letter] !== undefined) {
        event.preventDefault();
        actions[letter]();
    } else if (event.key === 'F2') {
        event.preventDefault();
        void edit(text(active));
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
        event.preventDefault();
        pasting.clear();
    } else if (event.key === 'Escape' && current.value.draft !== undefined) {
        change('putting back', [[{ ...active }, grid.base(key(active))]]);
    } else if (!far && !event.altKey && event.key.length === 1) {
        event.preventDefault();
        void edit(event.key);
    } else {
        selection.onKey(event, PAGE, isFilled);
    }
}

const isPasted = computed(() => edits.last.value?.name === PASTING);

function turn(): void {
    step(false);
    pasting.turn();
}

const sentence = computed(() => {
    if (message.value !== null) {
        return message.value;
    }
    const count = edits.drafts.size;
    const bad = edits.refused.value;
    if (count === 0) {
        return {
            text: canType.value
                ? 'Type, paste or fill; nothing is saved before you say so.'
                : 'Your account reads these figures.',
            bad: '',
        };
    }
    const verb = isPasted.value ? 'pasted ' : '';
    return {
        text: `${count} ${verb}${count === 1 ? 'cell' : 'cells'}: ${edits.sound.value} to save${bad > 0 || edits.conflicts.value > 0 ? ',' : ''}`,
        bad: bad > 0 ? `${bad} refused` : edits.conflicts.value > 0 ? `${edits.conflicts.value} changed elsewhere` : '',
    };
});

// --- pointer ------------------------------------------------------------------------------------------------------

function pointed(event: PointerEvent): Place | null {
    const [, row, column] = /^cell-(\d+)-(\d+)$/.exec((event.target as Element).closest('[id]')?.id ?? '') ?? [];
    return row === undefined ? null : { row: Number(row), column: Number(column) };
}

function press(event: PointerEvent): void {
    const at = pointed(event);
    if (event.button === 0 && at !== null) {
        commit();
        selection.dragging.value = true;
        selection.go(at.row, at.column, event.shiftKey);
        scroller.value?.focus({ preventScroll: true });
    }
}

function drag(event: PointerEvent): void {
    const at = selection.dragging.value ? pointed(event) : null;
    if (at !== null) {
        selection.go(at.row, at.column, true);
    }
}
useEventListener(window, 'pointerup', () => (selection.dragging.value = false));

// --- what stands around the grid ----------------------------------------------------------------------------------

/** More than this is selected as a whole, not to be summed. */
const SUMMED = 20_000;
const selected = computed(() => (selection.size.value > SUMMED ? [] : [...selection.places()].map(text)));

const where = computed(() => {
    const row = current.value.row;
    const of = row === undefined ? '' : grid.periodOf(row, active.column);
    return row === undefined
        ? ''
        : `${of === '' ? longMonth(columns.value[active.column]?.month ?? '') : periodWords(of)}, ${row.name}`;
});
const heading = computed(() =>
    data.value === undefined
        ? ''
        : `${layer.value === 'target' ? 'Targets' : 'Figures'} ${data.value.year}, for ${unit.value.name}`,
);
useTitle(computed(() => `${heading.value || 'Figures'} · Kybernet`));
const label = (column: Schemas['GridColumn']): string =>
    weekly.value ? column.period.slice(5) : shortMonth(column.period);
/** A digit with what stands around it, in pixels. */
const DIGIT = 7.8;
const longest = (texts: string[]): number => texts.reduce((most, text) => Math.max(most, setApart(text).length), 0);
// Every row has the same columns, however long its figures are; what is in view has no say in it.
const widths = computed(() => {
    const rows = data.value?.rows ?? [];
    const cell = rows.reduce((most, row) => Math.max(most, row.kind === 'judged' ? 0 : longest(row.typed)), 0);
    const total = rows.reduce((most, row) => Math.max(most, row.total ? figure(row.total, row.measure).length : 0), 0);
    return {
        '--cell': `${Math.max(58, Math.ceil(cell * DIGIT) + 22)}px`,
        '--total': `${Math.max(78, Math.ceil(total * DIGIT) + 22)}px`,
    };
});

onBeforeRouteLeave(
    () =>
        edits.drafts.size === 0 ||
        window.confirm(`${edits.drafts.size} cells are not saved. They stay in this browser. Leave the grid?`),
);
</script>

<template>
    <div class="flex flex-wrap items-end gap-x-6 gap-y-2 border-b border-rule pb-3">
        <div class="min-w-0">
            <h1 class="text-[28px] leading-[1.15]">
                {{ heading || '&nbsp;' }}<span class="hidden print:inline">, {{ LAYERS[layer] }}</span>
            </h1>
            <p class="mt-[5px] text-[17px] print:hidden" role="status">
                {{ sentence.text
                }}<template v-if="sentence.bad"
                    >&nbsp;<b class="font-[650] text-red-text">{{ sentence.bad }}</b></template
                >
                <span v-if="pasting.note.value && (isPasted || pasting.isAsking.value)" class="text-ink-soft">
                    · {{ pasting.note.value }}
                    <button v-if="pasting.isAsking.value" type="button" class="quiet-link" @click="pasting.putAnyway">
                        Put it where the selection is
                    </button></span
                >
            </p>
        </div>
        <div v-if="canType" class="ml-auto flex items-center gap-3">
            <button
                v-if="pasting.canTurn.value && isPasted && !edits.last.value?.saved"
                type="button"
                class="quiet-link text-[14px] text-ink-soft"
                @click="turn"
            >
                Turn on its side
            </button>
            <button
                type="button"
                class="button button-quiet"
                :disabled="edits.last.value === null || busy"
                @click="step(false)"
            >
                Undo{{ edits.last.value ? ` ${edits.last.value.name}` : '' }}
            </button>
            <button type="button" class="button" :disabled="edits.sound.value === 0 || busy" @click="grid.save()">
                {{ busy ? 'Saving …' : edits.sound.value > 0 ? `Save ${edits.sound.value}` : 'Save' }}
            </button>
        </div>
    </div>
    <LogbookTabs here="year">
        <ChoiceRow v-model="layer" label="Layer" :choices="LAYERS" class="mr-2 text-[14px]" />
        <label v-if="data?.hasWeeks || weekly" class="flex items-center gap-2 text-[13.5px] text-ink-soft">
            <input v-model="weekly" type="checkbox" class="size-4 accent-brass" /> weeks
        </label>
        <template #right>
            <input
                v-model="filter"
                class="field min-h-[28px] w-[150px] py-[2px] text-[13.5px]"
                type="search"
                placeholder="Find a row"
                aria-label="Find a row"
            />
            <span v-if="canType"
                >Show:
                <button type="button" class="quiet-link" :aria-pressed="onlyMine" @click="onlyMine = !onlyMine">
                    {{ onlyMine ? 'mine' : 'all' }}
                </button>
            </span>
        </template>
    </LogbookTabs>

    <StateNote v-if="grid.isPending.value" loading />
    <StateNote v-else-if="grid.error.value && !data" :error="grid.error.value" @retry="grid.refetch" />
    <StateNote
        v-else-if="shown.length === 0"
        :title="
            filter
                ? 'No row has that name'
                : weekly
                  ? 'Nothing is measured by the week here'
                  : 'Nothing is measured here'
        "
    >
        <button v-if="filter" type="button" class="quiet-link" @click="filter = ''">Show all rows</button>
        <template v-else>Choose another unit in the path above, or define a KPI in the register.</template>
    </StateNote>
    <template v-else>
        <div
            ref="scroller"
            role="grid"
            tabindex="0"
            class="h-[max(300px,calc(100vh-322px))] overflow-auto overscroll-contain rounded-[3px] border border-rule bg-paper text-[14.5px] outline-none focus-visible:border-brass print:h-auto print:overflow-visible print:border-0 print:text-[11px]"
            :style="widths"
            :aria-label="heading"
            :aria-rowcount="shown.length + 1"
            :aria-colcount="columns.length + 2"
            :aria-activedescendant="`cell-${active.row}-${active.column}`"
            aria-multiselectable="true"
            @keydown="onKey"
            @copy="pasting.copy"
            @cut="pasting.cut"
            @paste="pasting.paste"
        >
            <div
                role="row"
                aria-rowindex="1"
                class="sticky top-0 z-20 flex min-w-max border-b border-rule bg-paper text-[13px] font-semibold text-ink-soft"
            >
                <div
                    role="columnheader"
                    aria-colindex="1"
                    class="sticky left-0 z-10 w-[232px] shrink-0 max-md:w-[150px] max-md:border-r max-md:border-rule truncate bg-paper px-[10px] py-[6px] font-medium"
                >
                    {{ unit.name }}
                </div>
                <div
                    v-for="(column, index) in columns"
                    :key="column.period"
                    role="columnheader"
                    :aria-colindex="index + 2"
                    class="w-(--cell) shrink-0 grow border-l border-rule-soft px-[9px] py-[6px] text-right whitespace-nowrap"
                    :class="
                        column.month === period
                            ? 'bg-sheet font-bold text-ink shadow-[inset_0_3px_0_var(--color-brass)]'
                            : ''
                    "
                >
                    {{ label(column) }}<Knot v-if="column.closed" label="closed" class="ml-1" />
                </div>
                <div
                    role="columnheader"
                    :aria-colindex="columns.length + 2"
                    class="w-(--total) shrink-0 border-l border-rule px-[9px] py-[6px] text-right"
                >
                    {{ layer === 'target' ? 'year' : 'to date' }}
                </div>
            </div>
            <div
                role="rowgroup"
                class="relative min-w-max"
                :style="{ height: `${virtual.getTotalSize()}px` }"
                @pointerdown="press"
                @pointerover="drag"
                @dblclick="edit(text(active))"
            >
                <div
                    v-for="each in virtual.getVirtualItems()"
                    :key="Number(each.key)"
                    class="absolute top-0 left-0 w-full min-w-max"
                    :style="{ transform: `translateY(${each.start}px)`, height: `${each.size}px` }"
                    role="presentation"
                >
                    <template v-for="item in [items[each.index]!]" :key="'title' in item ? item.title : item.row.id">
                        <div
                            v-if="'title' in item"
                            class="flex h-full items-center border-b border-rule bg-paper"
                            role="presentation"
                        >
                            <span class="sticky left-0 px-[10px] font-serif text-[16px] font-semibold">{{
                                item.title || 'Without a theme'
                            }}</span>
                        </div>
                        <GridRow
                            v-else
                            v-model:editing="editing"
                            :row="item.row"
                            :at="item.at"
                            :drafts="edits.drafts"
                            :active="item.at === active.row ? active.column : -1"
                            :from="isSelected(item.at) ? area.left : -1"
                            :to="isSelected(item.at) ? area.right : -1"
                            :where="item.at === active.row ? where : ''"
                            @commit="commit"
                        />
                    </template>
                </div>
            </div>
        </div>
        <GridStatus
            :rows="shown.length"
            :all="data?.rows.length ?? 0"
            :selected="selection.size.value"
            :texts="selected"
            :where="where"
            :draft="current.draft"
            :lock="current.lock"
            :reason="reason"
            :is-offline="offline"
            :has-drafts="edits.drafts.size > 0 && !busy"
            @settle="(mine) => grid.settle(key(active), mine)"
            @discard="grid.discard"
            @reason="(text) => grid.giveReason(key(active), text)"
        />
    </template>
</template>
