<script setup lang="ts">
import type { Schemas } from '@/api/client';
import type { Draft } from '@/components/grid/useDrafts';
import Needle from '@/components/Needle.vue';
import { useNumbers } from '@/composables/useNumbers';
import { LETTERS, lockWords } from '@/words';
import { computed } from 'vue';

/**
 * One row of the year grid. Its cells are plain elements and the pointer is heard by the grid as a whole: while the
 * grid scrolls, rows come and go by the hundred.
 */
const props = defineProps<{
    row: Schemas['GridRow'];
    at: number;
    /** what is typed and not saved, by KPI and column */
    drafts: Map<string, Draft>;
    /** the column that is worked on; -1 in all other rows */
    active: number;
    /** the first and last selected column; -1 where none is */
    from: number;
    to: number;
    /** what stands in the editor over the active cell */
    editing: string | null;
    /** what the active cell is */
    where: string;
}>();
const emit = defineEmits<{ 'update:editing': [text: string]; commit: [] }>();

const BARS: Record<string, string> = { g: 'bg-green', a: 'bg-amber', r: 'bg-red' };
const COLOURS = ['green', 'amber', 'red'] as const;

const { figure, setApart } = useNumbers();

function ground(draft: Draft | undefined, bad: boolean, lock: string): string {
    if (draft !== undefined) {
        return bad ? 'bg-red-zone/40' : 'bg-brass-tint';
    }
    return lock === '' ? 'bg-field' : 'bg-paper text-ink-soft';
}

const cells = computed(() =>
    props.row.locks.map((lock, column) => {
        const draft = props.drafts.get(`${props.row.id}/${column}`);
        const typed = draft?.text ?? props.row.typed[column] ?? '';
        // What holds where nothing is set: worked out, or from the figure of the year.
        const following = typed === '' ? (props.row.following?.[column] ?? '') : '';
        const text = typed || following;
        const marks = props.row.marks[column] ?? '';
        const status = (draft === undefined ? props.row.statuses[column] : draft.status) ?? '';
        const bad = draft?.state === 'refused' || draft?.state === 'conflict';
        const isJudged = props.row.kind === 'judged';
        return {
            text: setApart(text),
            colour: isJudged ? COLOURS.find((each) => each === text) : undefined,
            bar: isJudged || bad ? undefined : BARS[status],
            ground: ground(draft, bad, lock),
            figure: [
                props.row.kind === 'formula' || following !== '' ? 'italic' : '',
                following === '' ? '' : 'text-ink-soft',
                bad ? 'text-red-text' : '',
                marks.includes('n') ? 'border-b-2 border-dotted border-brass leading-[1.15]' : '',
            ],
            isProvisional: marks.includes('p'),
            isLocked: lock !== '',
            /** what a screen reader says: as a label, since hidden texts in every cell slow the scrolling down */
            said: [
                setApart(text),
                following === ''
                    ? ''
                    : props.row.targetFormula === ''
                      ? 'from the target of the year'
                      : `worked out: ${props.row.targetFormula}`,
                LETTERS[status] ?? '',
                draft === undefined ? '' : bad ? draft.words : 'not saved yet',
                marks.includes('n') ? 'has a note' : '',
                marks.includes('p') ? 'provisional' : '',
                lock === '' ? '' : `cannot be typed in: ${lockWords(lock, props.row.formula)}`,
            ]
                .filter((each) => each !== '')
                .join(', '),
        };
    }),
);
</script>

<template>
    <div role="row" :aria-rowindex="at + 2" class="flex h-full border-b border-rule-soft">
        <div
            role="rowheader"
            aria-colindex="1"
            class="sticky left-0 z-10 flex w-[232px] shrink-0 items-center truncate bg-sheet px-[10px] max-md:w-[150px] max-md:border-r max-md:border-rule"
            :class="{ 'bg-brass-tint': active >= 0 }"
            :title="`${row.name} (${row.code})`"
        >
            <span class="truncate text-[14.5px] font-semibold">{{ row.name }}</span>
            <span class="ml-1.5 shrink-0 text-[12px] text-ink-faint max-md:hidden">{{ row.measure }}</span>
        </div>
        <div
            v-for="(cell, column) in cells"
            :id="`cell-${at}-${column}`"
            :key="column"
            role="gridcell"
            :aria-colindex="column + 2"
            :aria-selected="column >= from && column <= to"
            :aria-readonly="cell.isLocked"
            :aria-label="cell.said || undefined"
            class="relative flex h-full w-(--cell) shrink-0 grow items-center justify-end border-l border-rule-soft pr-[9px] pl-3 select-none"
            :class="[
                cell.ground,
                column === active
                    ? 'z-10 outline-2 -outline-offset-2 outline-brass'
                    : column >= from && column <= to
                      ? 'shadow-[inset_0_0_0_999px_color-mix(in_srgb,var(--color-brass)_13%,transparent)]'
                      : '',
            ]"
        >
            <span
                v-if="cell.bar"
                class="absolute top-[7px] bottom-[7px] left-[4px] w-[4px] rounded-full"
                :class="cell.bar"
            />
            <Needle v-if="cell.colour" :status="cell.colour" size="s" decorative />
            <span v-else-if="cell.text" class="truncate" :class="cell.figure">{{ cell.text }}</span>
            <span v-if="cell.isProvisional" class="-mt-2 ml-[2px] text-[11px] text-ink-faint" aria-hidden="true"
                >°</span
            >
            <input
                v-if="editing !== null && column === active"
                class="absolute inset-0 z-20 h-full w-full bg-field px-2 text-right outline-2 -outline-offset-2 outline-brass"
                :value="editing"
                :aria-label="where"
                autocomplete="off"
                @input="emit('update:editing', ($event.target as HTMLInputElement).value)"
                @blur="emit('commit')"
                @pointerdown.stop
            />
        </div>
        <div
            role="gridcell"
            :aria-colindex="cells.length + 2"
            class="flex w-(--total) shrink-0 items-center justify-end border-l border-rule bg-paper pr-[9px] font-[650]"
        >
            {{ row.total ? figure(row.total, row.measure) : '' }}
        </div>
    </div>
</template>
