import { PASTING, usePasting } from '@/components/grid/usePasting';
import type { Place, useSelection } from '@/components/grid/useSelection';
import type { Schemas } from '@/api/client';
import { computed, nextTick, ref, type Ref } from 'vue';
import type { useYearGrid } from './useYearGrid';

/** How many rows Page up and Page down go. */
const PAGE = 15;

/** A cell of the year grid, wherever it stands. */
export interface Cells {
    key: (place: Place) => string;
    text: (place: Place) => string;
    /** why it cannot be typed in; blank where it can */
    lock: (place: Place) => string;
    isFilled: (place: Place) => boolean;
}

/** Typing in the year grid: into one cell, by filling, by pasting; and taking it back. */
export function useGridTyping(
    grid: ReturnType<typeof useYearGrid>,
    selection: ReturnType<typeof useSelection>,
    scroller: Ref<HTMLElement | null>,
    rows: Ref<Schemas['GridRow'][]>,
    columns: Ref<Schemas['GridColumn'][]>,
    { key, text, lock, isFilled }: Cells,
) {
    const { edits, message } = grid;
    const { active, area } = selection;

    const editing = ref<string | null>(null);

    async function edit(start: string): Promise<void> {
        if (lock(active) !== '') {
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
        const found = rows.value.flatMap((row, index) =>
            [row.code, row.name, `${row.name}, ${row.unit}`, `${row.code} ${row.unit}`].some(
                (each) => each.toLowerCase() === wanted,
            )
                ? [index]
                : [],
        );
        const same = found.filter((index) => rows.value[index]?.unit === rows.value[active.row]?.unit);
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
        } else if (event.key === 'Escape' && edits.drafts.has(key(active))) {
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

    return { editing, edit, commit, onKey, pasting, isPasted, step, turn };
}
