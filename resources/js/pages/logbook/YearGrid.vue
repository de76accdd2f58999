<script setup lang="ts">
import { useSelection, type Place } from '@/components/grid/useSelection';
import StateNote from '@/components/StateNote.vue';
import { longMonth, periodWords } from '@/composables/usePeriods';
import { useView } from '@/composables/useView';
import ChoiceRow from '@/components/ChoiceRow.vue';
import { useEventListener, useTitle } from '@vueuse/core';
import { lockWords } from '@/words';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { onBeforeRouteLeave } from 'vue-router';
import GridHead from './GridHead.vue';
import GridRow from './GridRow.vue';
import GridStatus from './GridStatus.vue';
import LogbookTabs from '@/components/LogbookTabs.vue';
import { useGridLayout } from './useGridLayout';
import { useGridTyping } from './useGridTyping';
import { useYearGrid, type Layer } from './useYearGrid';

const LAYERS = { actual: 'actual', target: 'target', prior: 'last year' } as const;

const { unit, period } = useView();

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

const scroller = useTemplateRef<HTMLElement>('scroller');
const { items, virtual, widths, scrollTo } = useGridLayout(
    scroller,
    computed(() => data.value?.rows ?? []),
    shown,
);

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
const lock = (place: Place): string => {
    const row = shown.value[place.row];
    return row === undefined ? 'nothing here' : lockWords(row.locks[place.column] ?? 'no-period', row.formula);
};
const current = computed(() => ({
    row: shown.value[active.row],
    draft: edits.drafts.get(key(active)),
    lock: lock(active),
}));
/** A colour that is typed asks why, here; one that has its note does not. */
const reason = computed(() => {
    const { row, draft } = current.value;
    const asks =
        row?.asksReason === true &&
        layer.value === 'actual' &&
        draft !== undefined &&
        draft.text !== '' &&
        row.marks[active.column] !== 'n';
    return asks ? (grid.reasons.get(key(active)) ?? '') : null;
});

async function reveal(): Promise<void> {
    scrollTo(active.row);
    await nextTick();
    scroller.value
        ?.querySelector(`#cell-${active.row}-${active.column}`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}
watch(active, () => void reveal());

const { editing, edit, commit, onKey, pasting, isPasted, step, turn } = useGridTyping(
    grid,
    selection,
    scroller,
    shown,
    columns,
    { key, text, lock, isFilled },
);

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
            <GridHead
                :name="unit.name"
                :columns="columns"
                :chosen="period"
                :weekly="weekly"
                :total="layer === 'target' ? 'year' : 'to date'"
            />
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
