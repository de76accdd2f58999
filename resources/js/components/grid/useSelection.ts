import { computed, reactive, ref, type Ref } from 'vue';

export interface Place {
    row: number;
    column: number;
}

/** A rectangle of cells; both ends belong to it. */
export interface Area {
    top: number;
    bottom: number;
    left: number;
    right: number;
}

const clamp = (value: number, most: number): number => Math.max(0, Math.min(most, value));

/**
 * Which cell is worked on, and which are selected around it, with the keys that spreadsheets have for it. It knows
 * nothing of what the cells hold.
 */
export function useSelection(rows: Ref<number>, columns: Ref<number>) {
    const active = reactive<Place>({ row: 0, column: 0 });
    const anchor = reactive<Place>({ row: 0, column: 0 });
    const dragging = ref(false);

    const area = computed<Area>(() => ({
        top: Math.min(active.row, anchor.row),
        bottom: Math.min(Math.max(active.row, anchor.row), rows.value - 1),
        left: Math.min(active.column, anchor.column),
        right: Math.min(Math.max(active.column, anchor.column), columns.value - 1),
    }));
    const size = computed(() => (area.value.bottom - area.value.top + 1) * (area.value.right - area.value.left + 1));

    /** Goes to a cell; the selection follows, or reaches from where it was when extended. */
    function go(row: number, column: number, extend = false): void {
        active.row = clamp(row, rows.value - 1);
        active.column = clamp(column, columns.value - 1);
        if (!extend) {
            Object.assign(anchor, active);
        }
    }

    /** The places of an area, row by row. */
    function* places(of: Area = area.value): Generator<Place> {
        for (let row = of.top; row <= of.bottom; row++) {
            for (let column = of.left; column <= of.right; column++) {
                yield { row, column };
            }
        }
    }

    /**
     * Takes a key that moves; false when it is not one.
     *
     * @param page how many rows are in view
     * @param edge where a run of filled cells ends, from a place in a direction
     */
    function onKey(
        event: KeyboardEvent,
        page: number,
        edge: (from: Place, down: number, right: number) => Place,
    ): boolean {
        const far = event.ctrlKey || event.metaKey;
        const arrows: Record<string, [number, number]> = {
            ArrowUp: [-1, 0],
            ArrowDown: [1, 0],
            ArrowLeft: [0, -1],
            ArrowRight: [0, 1],
        };
        const arrow = arrows[event.key];
        if (arrow !== undefined && !event.altKey) {
            const to = far ? edge(active, ...arrow) : { row: active.row + arrow[0], column: active.column + arrow[1] };
            go(to.row, to.column, event.shiftKey);
        } else if (event.key === 'Home') {
            go(far ? 0 : active.row, 0, event.shiftKey);
        } else if (event.key === 'End') {
            go(far ? rows.value - 1 : active.row, columns.value - 1, event.shiftKey);
        } else if (event.key === 'PageUp' || event.key === 'PageDown') {
            go(active.row + (event.key === 'PageUp' ? -page : page), active.column, event.shiftKey);
        } else if (event.key === 'Tab' && !far) {
            const next = active.row * columns.value + active.column + (event.shiftKey ? -1 : 1);
            // At either end the focus leaves the grid, as it would any other control.
            if (next < 0 || next >= rows.value * columns.value) {
                return false;
            }
            go(Math.floor(next / columns.value), next % columns.value);
        } else if (event.key === 'Enter') {
            go(active.row + (event.shiftKey ? -1 : 1), active.column);
        } else if (far && event.key.toLowerCase() === 'a') {
            Object.assign(anchor, { row: 0, column: 0 });
            Object.assign(active, { row: rows.value - 1, column: columns.value - 1 });
        } else {
            return false;
        }
        event.preventDefault();
        return true;
    }

    return { active, area, size, dragging, go, places, onKey };
}
